import { graphicsOf, listedOf, reelEnd, secondsAt } from '@fresh-reel/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { TemplatePreview } from '../preview/TemplatePreview';
import { lengthOf, USE_NAMES } from '../preview/templateFacts';
import { Banner } from '../ui/Banner';
import { Button } from '../ui/Button';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';
import { CORNER, colour } from '../ui/theme';
import { bytesText, secondsText } from '../ui/units';
import type { HeldFile, LookedInto, Things } from './openPackage';

interface Props {
  /** The file's. */
  readonly name: string;
  readonly into: LookedInto;
  readonly onTake: () => Promise<void>;
  readonly onClose: () => void;
}

/** Files that are named one by one. */
const NAMED = 6;

/** What is in a file, before anything of it is taken in: what it is, what it brings, and what it lacks and where. */
export function OpenSheet({ name, into, onTake, onClose }: Props) {
  const [taking, setTaking] = useState(false);
  const { opened, files, fonts, missing, from, newer } = into;
  const fresh = files.filter((f) => !f.here);
  const known = files.length - fresh.length;
  const lacks = missing.files.length + missing.families.length > 0;
  return (
    <Sheet title={name} onClose={onClose} testID="open-sheet">
      <What opened={opened} />
      <View style={styles.list} testID="open-brings">
        {fresh.length > 0 && <Txt>{`Brings ${listed(fresh)}.`}</Txt>}
        {known > 0 && (
          <Txt tone="quiet">
            {known === 1 ? 'One of its files is here already.' : `${known} of its files are here already.`}
          </Txt>
        )}
        {fonts.length > 0 && <Txt>{`Brings the fonts ${fonts.join(', ')}.`}</Txt>}
        {files.length + fonts.length === 0 && (
          <Txt tone="quiet">It brings no files: all it shows ships with the app or is not in it.</Txt>
        )}
      </View>
      {from !== undefined && <Txt tone="quiet" testID="open-from">{`From ${from}, as it says.`}</Txt>}
      {newer.length > 0 && (
        <Banner kind="watch" testID="open-newer">
          {`Made by a newer Fresh Reel; some of it will look different here. ${newer.slice(0, NAMED).join(' ')}`}
        </Banner>
      )}
      {lacks && (
        <Banner kind="watch" testID="open-lacks">
          {[
            ...missing.files.map(
              (f) => `${f.name ? `“${f.name}”` : 'A file'} is not in it; it shows in ${f.slots.join(', ')}.`,
            ),
            ...missing.families.map((family) => `The font ${family} is not in it.`),
            'The rest opens all the same, and what is found later finds its place.',
          ].join(' ')}
        </Banner>
      )}
      <View style={styles.row}>
        <Button
          title={taking ? 'Taking it in…' : 'Take it in'}
          kind="next"
          disabled={taking}
          onPress={() => {
            setTaking(true);
            void onTake();
          }}
          testID="open-take"
        />
        <Button title="Leave it" disabled={taking} onPress={onClose} testID="open-leave" />
      </View>
    </Sheet>
  );
}

function What({ opened }: { opened: LookedInto['opened'] }) {
  if (opened.kind === 'template') {
    const { template } = opened;
    return (
      <>
        <View style={styles.picture}>
          <TemplatePreview template={template} shape={template.shape} moving={false} />
        </View>
        <Txt testID="open-what">
          {`The template “${template.name}”: ${USE_NAMES[template.use].toLowerCase()}, ${lengthOf(listedOf(template))}.`}
        </Txt>
      </>
    );
  }
  if (opened.kind === 'several')
    return <Several things={opened.things} choices={opened.choices !== undefined} />;
  const { reel } = opened;
  const titles = graphicsOf(reel);
  const [first] = titles;
  const length = secondsText(secondsAt(reelEnd(reel), reel.rate));
  const count = titles.length === 1 ? 'one title' : `${titles.length} titles`;
  return (
    <>
      {first && (
        <View style={styles.picture}>
          <TemplatePreview template={first.template} shape="wide" moving={false} fill={first.fill} />
        </View>
      )}
      <Txt testID="open-what">{`The reel “${reel.name}”: ${count}, ${length}.`}</Txt>
    </>
  );
}

/** Several things by name; of many, the first ones. */
function Several({
  things: { reels, templates, brands },
  choices,
}: {
  things: Things;
  /** Whether favourites, groups and settings come along. */
  choices: boolean;
}) {
  const groups = [
    ['Reels', reels],
    ['Templates', templates],
    ['Brands', brands],
  ] as const;
  const [first] = templates;
  return (
    <>
      {first && (
        <View style={styles.picture}>
          <TemplatePreview template={first} shape={first.shape} moving={false} />
        </View>
      )}
      <View style={styles.list} testID="open-what">
        {groups.map(([what, all]) =>
          all.length === 0 ? null : (
            <Txt key={what}>
              {`${what} (${all.length}): ${all
                .slice(0, NAMED)
                .map((t) => `“${t.name}”`)
                .join(', ')}${all.length > NAMED ? ' and more' : ''}.`}
            </Txt>
          ),
        )}
        {choices && <Txt>Favourites, groups and settings.</Txt>}
        <Txt kind="small" tone="quiet">
          Nothing that is here is written over.
        </Txt>
      </View>
    </>
  );
}

/** Files by name with their size; of many, the first ones. */
function listed(files: readonly HeldFile[]): string {
  const size = bytesText(files.reduce((sum, f) => sum + f.bytes, 0));
  const names = files.slice(0, NAMED).map((f) => `“${f.name}”`);
  const more = files.length - names.length;
  return `${names.join(', ')}${more > 0 ? ` and ${more} more` : ''} (${size})`;
}

const styles = StyleSheet.create({
  list: { gap: 6 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
  picture: { borderRadius: CORNER, overflow: 'hidden', backgroundColor: colour.surround },
});
