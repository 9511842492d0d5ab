import { type FrameShape, listedOf, messageOf, type Template } from '@fresh-reel/core';
import { useMemo, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { WearingToggle } from '../brand/WearingToggle';
import { useSaveTemplateFile, useSaveThingsFile } from '../files/useSaveFile';
import { TemplatePreview } from '../preview/TemplatePreview';
import { FRAME_SHAPES, lengthOf, soundsOf, USE_NAMES } from '../preview/templateFacts';
import { GroundSheet } from '../shelf/GroundSheet';
import { SkipLink } from '../shell/SkipLink';
import { useTitle } from '../shell/useTitle';
import { useBrand, usePreferences, useSaveBrand } from '../storage/queries';
import { useTemplates, wholeTemplate } from '../storage/useTemplates';
import { Banner } from '../ui/Banner';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Icon } from '../ui/Icon';
import { useToast } from '../ui/Toast';
import { Toggle } from '../ui/Toggle';
import { Txt } from '../ui/Txt';
import { colour, useIsWide } from '../ui/theme';
import { webProps } from '../ui/web';
import { FootageSheet } from './FootageSheet';
import { GroupsPart } from './GroupsPart';
import { Guide } from './Guide';
import { Looks, lookFill } from './Looks';
import { OwnTemplate } from './OwnTemplate';
import { ReelSheet } from './ReelSheet';
import { SLOT_KIND } from './slots';
import { TemplatesHeader } from './TemplatesHeader';
import { useBegin } from './useBegin';
import { useStartReel } from './useStartReel';

/** One template: how it moves in each frame, what it needs, and its guide. */
export function TemplateDetails({ template, isOwn }: { template: Template; isOwn: boolean }) {
  const wide = useIsWide();
  useTitle(template.name);
  const brand = useBrand();
  const saveBrand = useSaveBrand();
  const toast = useToast();
  const [shape, setShape] = useState<FrameShape>(template.shape);
  const { wearing } = usePreferences();
  const [look, setLook] = useState<string>();
  const [ground, setGround] = useState(false);
  const [footage, setFootage] = useState(false);
  const [into, setInto] = useState(false);
  const { start, startOver, addTo, fault } = useStartReel();
  const save = useSaveTemplateFile();
  const workshop = useBegin();
  const saveSet = useSaveThingsFile();
  const { templates } = useTemplates();
  const alike = templates.filter((t) => t.set !== undefined && t.set === template.set);
  const worn = (wearing && brand) || undefined;
  const fill = useMemo(() => lookFill(template, look, worn), [template, look, worn]);
  const sounds = useMemo(() => soundsOf(template), [template]);
  return (
    <View style={styles.screen} testID="template-details">
      <SkipLink />
      <TemplatesHeader title={template.name}>
        <Button
          title="Use"
          label={`Use ${template.name}`}
          kind="next"
          onPress={() => void start(template, shape, wearing, fill)}
          testID="use-template"
        />
      </TemplatesHeader>
      <ScrollView
        contentContainerStyle={[styles.body, wide && styles.bodyWide]}
        role="main"
        {...webProps({ id: 'content', tabIndex: -1 })}
      >
        <View style={[styles.show, wide && styles.showWide]}>
          <View style={[styles.surround, shape !== 'wide' && styles.surroundTall]}>
            <View
              style={shape === 'wide' ? styles.wideBox : shape === 'tall' ? styles.tallBox : styles.squareBox}
            >
              <TemplatePreview key={shape} template={template} shape={shape} moving fill={fill} />
            </View>
          </View>
          <Choice
            label="Shape of the frame"
            testID="frame-shape"
            value={shape}
            options={FRAME_SHAPES}
            onChange={setShape}
          />
          {template.transparent !== false && (
            <View style={styles.files}>
              <Button
                title="What lies behind"
                icon="image"
                small
                onPress={() => setGround(true)}
                testID="ground"
              />
            </View>
          )}
          {brand && (
            <Toggle
              label={`Among ${brand.name}’s templates`}
              value={brand.templates.includes(template.id)}
              onChange={(on) => {
                const others = brand.templates.filter((id) => id !== template.id);
                saveBrand.mutate(
                  {
                    brand: { ...brand, templates: on ? [template.id, ...others].slice(0, 100) : others },
                    before: brand,
                  },
                  { onError: (error) => toast({ text: messageOf(error) }) },
                );
              }}
              testID="of-brand"
            />
          )}
          <WearingToggle />
        </View>
        <View style={[styles.words, wide && styles.wordsWide]}>
          <View style={styles.files}>
            <Button
              title="Put over footage"
              icon="film"
              onPress={() => setFootage(true)}
              testID="over-footage"
            />
            <Button title="Add to a reel" icon="plus" onPress={() => setInto(true)} testID="into-reel" />
            <Button
              title={isOwn ? 'Open in the workshop' : 'Open a copy in the workshop'}
              icon="hammer"
              onPress={() => void workshop.open(template)}
              testID="to-workshop"
            />
          </View>
          {(fault ?? workshop.fault) && <Banner kind="fault">{(fault ?? workshop.fault)!}</Banner>}
          <View style={styles.group}>
            <Txt kind="title">{template.about}</Txt>
            <Txt tone="quiet">
              {USE_NAMES[template.use]}, {lengthOf(listedOf(template))} as it comes.
              {template.transparent === true ? ' Transparent: it lies over your footage.' : ''}
              {typeof template.transparent === 'object' ? ' Transparent when its backdrop is off.' : ''}
            </Txt>
          </View>
          {template.looks.length > 1 && (
            <View style={styles.group}>
              <Txt kind="lead" level={2}>
                Its looks
              </Txt>
              <Looks template={template} shape={shape} brand={worn} chosen={look} onChoose={setLook} />
            </View>
          )}
          <View style={styles.group}>
            <Txt kind="lead" level={2}>
              What it needs
            </Txt>
            {template.slots
              .filter((slot) => slot.kind !== 'sound')
              .map((slot) => (
                <View key={slot.id} style={styles.need}>
                  <Icon name={SLOT_KIND[slot.kind].icon} size={16} />
                  <Txt>
                    {slot.name}
                    <Txt tone="quiet">
                      {' '}
                      {SLOT_KIND[slot.kind].word.toLowerCase()}
                      {slot.optional ? ', optional' : ''}
                    </Txt>
                  </Txt>
                </View>
              ))}
          </View>
          {sounds.length > 0 && (
            <View style={styles.group} testID="template-sounds">
              <Txt kind="lead" level={2}>
                Its sounds
              </Txt>
              {sounds.map(({ id, name, when }) => (
                <View key={id} style={styles.need}>
                  <Icon name="music" size={16} />
                  <Txt>
                    {name}
                    <Txt tone="quiet"> {when}</Txt>
                  </Txt>
                </View>
              ))}
            </View>
          )}
          {template.scenes.length > 1 && (
            <View style={styles.group} testID="template-parts">
              <Txt kind="lead" level={2}>
                Its parts
              </Txt>
              {template.scenes.map(({ id, name }) => (
                <Txt key={id}>{name}</Txt>
              ))}
            </View>
          )}
          <View style={styles.group}>
            <Txt kind="lead" level={2}>
              How to use it
            </Txt>
            <Guide template={template} />
          </View>
          <GroupsPart template={template.id} />
          {isOwn && <OwnTemplate template={template} />}
          <View style={styles.group}>
            <Txt kind="lead" level={2}>
              Template file
            </Txt>
            <Txt tone="quiet">
              The template with its samples and sounds, in one file: to keep, to hand on, or for the command
              line.
            </Txt>
            <View style={styles.files}>
              <Button
                title="Save as a file"
                icon="save"
                onPress={() => save(template)}
                testID="save-template-file"
              />
              {template.set !== undefined && alike.length > 1 && (
                <Button
                  title={`Save the set “${template.set}” (${alike.length})`}
                  icon="layers"
                  onPress={async () => {
                    const all = await Promise.all(alike.map(({ id }) => wholeTemplate(id)));
                    await saveSet({
                      name: template.set!,
                      things: { templates: all.flatMap((t) => t ?? []) },
                    });
                  }}
                  testID="save-set-file"
                />
              )}
            </View>
          </View>
        </View>
      </ScrollView>
      {ground && <GroundSheet onClose={() => setGround(false)} />}
      {into && (
        <ReelSheet
          onChoose={(reel) => {
            setInto(false);
            void addTo(template, reel, wearing, fill);
          }}
          onClose={() => setInto(false)}
        />
      )}
      {footage && (
        <FootageSheet
          onChoose={(clip) => {
            setFootage(false);
            void startOver(template, clip, wearing, fill);
          }}
          onClose={() => setFootage(false)}
        />
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  screen: { flex: 1, backgroundColor: colour.paper },
  body: { paddingBottom: 48 },
  bodyWide: {
    flexDirection: 'row',
    padding: 32,
    gap: 40,
    maxWidth: 1280,
    width: '100%',
    marginHorizontal: 'auto',
  },
  show: { gap: 12, paddingHorizontal: 16, paddingTop: 16 },
  showWide: { flex: 3, paddingHorizontal: 0, paddingTop: 0 },
  surround: { borderRadius: 10, overflow: 'hidden', backgroundColor: colour.surround, alignItems: 'center' },
  surroundTall: { paddingVertical: 16 },
  wideBox: { width: '100%' },
  tallBox: { width: 230 },
  squareBox: { width: 330, maxWidth: '100%' },
  words: { padding: 16, paddingTop: 24, gap: 28 },
  wordsWide: { flex: 2, padding: 0, paddingTop: 0 },
  group: { gap: 10 },
  need: { flexDirection: 'row', alignItems: 'center', gap: 10 },
  files: { flexDirection: 'row', flexWrap: 'wrap', gap: 10 },
});
