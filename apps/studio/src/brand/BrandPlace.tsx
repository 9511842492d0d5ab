import {
  type Brand,
  freshPicture,
  harmonies,
  type LineRole,
  type LogoRole,
  messageOf,
  type PictureFill,
  type SoundRole,
} from '@fresh-reel/core';
import { useState } from 'react';
import { Image, StyleSheet, View } from 'react-native';
import { DEMO_BRAND } from '../demo/brand';
import { PICTURE_FILES, pickFile } from '../disk/pickFile';
import { FontField } from '../fonts/FontField';
import { importPicture } from '../media/import/importPicture';
import { usePictureUrl } from '../media/usePictureUrl';
import { Place } from '../shell/Place';
import { RemovedList } from '../shell/RemovedList';
import { useBrand, useBrands } from '../storage/queries';
import { Banner } from '../ui/Banner';
import { Button, IconButton } from '../ui/Button';
import { ColourField } from '../ui/ColourField';
import { Field } from '../ui/Field';
import { Press } from '../ui/Press';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';
import { CHEQUERED, CORNER, colour, TOUCH } from '../ui/theme';
import { webStyle } from '../ui/web';
import { HarmonySheet } from './HarmonySheet';
import { SoundRow } from './SoundRow';
import { useBrandHistory } from './useBrandHistory';
import { Wearing } from './Wearing';
import { TakeBrandOut, WhichBrand } from './WhichBrand';

const ROLES: readonly { id: keyof Brand['colours']; name: string; about: string }[] = [
  { id: 'main', name: 'Main', about: 'accents and panels' },
  { id: 'second', name: 'Second', about: 'glows and small parts' },
  { id: 'dark', name: 'Dark', about: 'backdrops and shades' },
  { id: 'light', name: 'Light', about: 'plates and paper' },
];

const EMPTY_BRAND: Brand = {
  ...DEMO_BRAND,
  name: 'My brand',
  colours: harmonies('#2F6DB3')[3]!.colours,
  logos: { main: null, light: null, dark: null, small: null },
  fonts: { heading: null, text: null },
  lines: { line: '', name: '', handle: '', address: '' },
  sounds: { logo: null, music: null },
  templates: [],
};

const LOGOS: readonly { id: LogoRole; name: string; about: string }[] = [
  { id: 'main', name: 'Logo', about: 'serves wherever no other is given' },
  { id: 'light', name: 'Light', about: 'for dark grounds' },
  { id: 'dark', name: 'Dark', about: 'for light grounds' },
  { id: 'small', name: 'Small', about: 'for badges and corners' },
];

const LINES: readonly { id: LineRole; name: string }[] = [
  { id: 'line', name: 'Line under the logo' },
  { id: 'name', name: 'Name as it is written' },
  { id: 'handle', name: 'Handle' },
  { id: 'address', name: 'Address' },
];

const SOUNDS: readonly { id: SoundRole; name: string; about: string }[] = [
  { id: 'logo', name: 'Sound of the logo', about: 'it is heard as the logo comes to stand' },
  { id: 'music', name: 'Music', about: 'it lies under openers and galleries' },
];

/** The brand: set once, worn by any template. */
export function BrandPlace() {
  const { data: brands } = useBrands();
  const brand = useBrand();
  if (!brands || brand === undefined) return <Place title="Brand">{null}</Place>;
  const stored = brand ?? EMPTY_BRAND;
  return <BrandForm key={stored.id} stored={stored} brands={brands} />;
}

function BrandForm({ stored, brands }: { stored: Brand; brands: readonly Brand[] }) {
  const [harmony, setHarmony] = useState(false);
  const [picking, setPicking] = useState<keyof Brand['colours']>();
  const [fault, setFault] = useState<string>();
  const { brand, put, settle, undo, redo, canUndo, canRedo } = useBrandHistory(stored, setFault);
  return (
    <View style={styles.screen}>
      <Place
        title="Brand"
        testID="brand"
        beside={
          <View style={styles.steps}>
            <IconButton icon="undo-2" label="Undo" disabled={!canUndo} onPress={undo} testID="undo" />
            <IconButton icon="redo-2" label="Redo" disabled={!canRedo} onPress={redo} testID="redo" />
          </View>
        }
      >
        <Txt tone="quiet">
          Set these once for each client or series. Any template and any reel can wear them.
        </Txt>
        <WhichBrand brands={brands} brand={brand} empty={EMPTY_BRAND} />
        {fault && <Banner kind="fault">{fault}</Banner>}
        <Wearing brand={brand} />
        <View style={styles.column}>
          <Field
            label="Name"
            value={brand.name}
            maxLength={80}
            onChangeText={(name) => put({ name }, 'name')}
            onBlur={settle}
            testID="brand-name"
          />
          <View style={styles.group}>
            <Txt kind="lead" level={2}>
              Colours
            </Txt>
            {ROLES.map((role) => (
              <Press
                key={role.id}
                role="button"
                onPress={() => setPicking(role.id)}
                style={styles.colour}
                testID={`brand-${role.id}`}
              >
                <View style={[styles.swatch, { backgroundColor: brand.colours[role.id] }]} />
                <View>
                  <Txt kind="strong">{role.name}</Txt>
                  <Txt kind="small" tone="quiet">
                    {brand.colours[role.id]}, {role.about}
                  </Txt>
                </View>
              </Press>
            ))}
            <View style={styles.buttons}>
              <Button
                title="Colours that go with Main"
                icon="layers"
                onPress={() => setHarmony(true)}
                testID="harmonies"
              />
            </View>
          </View>
          <View style={styles.group}>
            <Txt kind="lead" level={2}>
              Logos
            </Txt>
            {LOGOS.map((role) => (
              <LogoRow
                key={role.id}
                role={role}
                logo={brand.logos[role.id]}
                onChange={(logo) => put({ logos: { ...brand.logos, [role.id]: logo } })}
                onFault={setFault}
              />
            ))}
          </View>
          <View style={styles.group}>
            <Txt kind="lead" level={2}>
              Fonts
            </Txt>
            {(['heading', 'text'] as const).map((role) => (
              <View key={role} style={styles.font}>
                <Txt kind="strong">{role === 'heading' ? 'Headings' : 'Everything else'}</Txt>
                <FontField
                  name={role === 'heading' ? 'Font of headings' : 'Font of everything else'}
                  value={brand.fonts[role] ?? 'Figtree'}
                  onChange={(family) => put({ fonts: { ...brand.fonts, [role]: family } })}
                  testID={`brand-font-${role}`}
                />
              </View>
            ))}
          </View>
          <View style={styles.group}>
            <Txt kind="lead" level={2}>
              Standard words
            </Txt>
            {LINES.map(({ id, name }) => (
              <Field
                key={id}
                label={name}
                value={brand.lines[id]}
                maxLength={160}
                onChangeText={(words) => put({ lines: { ...brand.lines, [id]: words } }, `line-${id}`)}
                onBlur={settle}
                testID={`brand-line-${id}`}
              />
            ))}
          </View>
          <View style={styles.group}>
            <Txt kind="lead" level={2}>
              Sounds
            </Txt>
            {SOUNDS.map((role) => (
              <SoundRow
                key={role.id}
                role={role}
                sound={brand.sounds[role.id]}
                onChange={(sound, gesture) => put({ sounds: { ...brand.sounds, [role.id]: sound } }, gesture)}
                onSettle={settle}
                onFault={setFault}
              />
            ))}
          </View>
          {brands.length > 1 && <TakeBrandOut brand={brand} />}
        </View>
        <RemovedList kind="brand" title="Brands that were taken out" onFault={setFault} />
      </Place>
      {harmony && (
        <HarmonySheet
          main={brand.colours.main}
          onChoose={(colours) => {
            put({ colours });
            settle();
            setHarmony(false);
          }}
          onClose={() => setHarmony(false)}
        />
      )}
      {picking && (
        <Sheet
          title={`${ROLES.find((r) => r.id === picking)?.name} colour`}
          onClose={() => {
            settle();
            setPicking(undefined);
          }}
          testID="colour-sheet"
        >
          <ColourField
            label="Colour"
            value={brand.colours[picking]}
            swatches={Object.values(brand.colours)}
            onChange={(v) => put({ colours: { ...brand.colours, [picking]: v } }, `colour-${picking}`)}
            onSettle={settle}
          />
        </Sheet>
      )}
    </View>
  );
}

/** One version of the logo. */
function LogoRow({
  role,
  logo,
  onChange,
  onFault,
}: {
  role: (typeof LOGOS)[number];
  logo: PictureFill | null;
  onChange: (logo: PictureFill | null) => void;
  onFault: (message: string | undefined) => void;
}) {
  const url = usePictureUrl(logo?.media);
  const choose = async () => {
    const file = await pickFile(PICTURE_FILES);
    if (!file) return;
    onFault(undefined);
    try {
      const { record } = await importPicture(file);
      onChange(freshPicture(`sha256:${record.hash}`, record.name));
    } catch (error) {
      onFault(messageOf(error));
    }
  };
  const main = role.id === 'main';
  return (
    <View style={styles.logoRow}>
      <View style={[styles.logo, role.id === 'light' && styles.onDark]}>
        {url ? (
          <Image source={{ uri: url }} style={styles.image} resizeMode="contain" alt={`${role.name} logo`} />
        ) : (
          <Txt kind="small" tone={role.id === 'light' ? 'white' : 'quiet'}>
            None yet
          </Txt>
        )}
      </View>
      <View style={styles.buttons}>
        <Txt kind="strong">{role.name}</Txt>
        <Txt kind="small" tone="quiet">
          {role.about}
        </Txt>
        <View style={styles.pair}>
          <Button
            title={logo ? 'Change' : 'Choose'}
            label={`${logo ? 'Change' : 'Choose'}: ${role.name}`}
            icon="upload"
            small
            onPress={() => void choose()}
            testID={main ? 'brand-logo' : `brand-logo-${role.id}`}
          />
          {logo && (
            <Button
              title="Take it off"
              label={`Take it off: ${role.name}`}
              kind="plain"
              onPress={() => onChange(null)}
            />
          )}
        </View>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  steps: { flexDirection: 'row' },
  screen: { flex: 1 },
  column: { gap: 28, maxWidth: 520 },
  group: { gap: 10 },
  colour: { flexDirection: 'row', alignItems: 'center', gap: 14, minHeight: TOUCH + 8, borderRadius: CORNER },
  swatch: { width: 64, height: 44, borderRadius: 8, borderWidth: 1, borderColor: colour.edge },
  logoRow: { flexDirection: 'row', alignItems: 'center', gap: 16 },
  logo: {
    width: 120,
    height: 90,
    borderRadius: 8,
    borderWidth: 1,
    borderColor: colour.hairline,
    alignItems: 'center',
    justifyContent: 'center',
    ...CHEQUERED,
  },
  image: { width: 104, height: 78 },
  onDark: webStyle({ backgroundImage: 'none', backgroundColor: colour.surround }),
  buttons: { gap: 2, alignItems: 'flex-start', flex: 1 },
  pair: { flexDirection: 'row', gap: 8, paddingTop: 4 },
  font: { gap: 6 },
});
