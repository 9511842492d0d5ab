import {
  browserFilm,
  type FrameSize,
  formatFacts,
  isFilmFormat,
  movingPicture,
  OUTPUT_FORMATS,
  type Rate,
  type RenderFormat,
} from '@fresh-reel/core';
import { StyleSheet, View } from 'react-native';
import { INSTALL_FFMPEG, useServer } from '../../engine/server';
import { useOwnFormats, useServerFilms, useSoundCodec, useSupport } from '../../render/measure/support';
import { Icon } from '../../ui/Icon';
import { Radio, RadioGroup } from '../../ui/RadioGroup';
import { Txt } from '../../ui/Txt';
import { CORNER, colour } from '../../ui/theme';

interface PartProps {
  readonly format: RenderFormat;
  readonly onChange: (format: RenderFormat) => void;
  /** Whether there is anything to hear. */
  readonly heard: boolean;
  readonly size: FrameSize;
  readonly rate: Rate;
  readonly transparent: boolean;
}

/** The kind of file: those of the browser, and those that the app's server makes, where it does. */
export function FormatPart({ format, onChange, ...about }: PartProps) {
  const films = useServerFilms();
  const server = useServer();
  // What was chosen stands here even while the server is away.
  const offered = isFilmFormat(format) && !films.includes(format) ? [format, ...films] : films;
  // The sound alone is a file where there is one.
  const written = useOwnFormats(about.size, about.rate);
  const own = OUTPUT_FORMATS.filter(
    (f) => f === format || (written.includes(f) && (f !== 'wav' || about.heard)),
  );
  const moving = own.filter((f) => movingPicture(f));
  const others = own.filter((f) => !movingPicture(f));
  const rows = (formats: readonly RenderFormat[]) =>
    formats.map((f) => <FormatRow key={f} format={f} chosen={f === format} {...about} />);
  return (
    <>
      <RadioGroup
        label="Kind of file"
        ids={[...others, ...moving, ...offered]}
        value={format}
        onChange={(f) => onChange(f as RenderFormat)}
        testID="output-format"
        style={styles.formats}
      >
        {rows(others)}
        <Heading text="Moving pictures, to show around" />
        {rows(moving)}
        {offered.length > 0 && <Heading text="Made by the app’s server" />}
        {rows(offered)}
      </RadioGroup>
      {server === 'without-ffmpeg' && (
        <Txt kind="small" tone="quiet" testID="without-ffmpeg">
          {`MOV for editing with transparency, H.265, pictures of 16 bits and more are made by the app’s server with ffmpeg, which is not there. ${INSTALL_FFMPEG}`}
        </Txt>
      )}
      {about.heard && !isFilmFormat(format) && <SoundNote format={format} />}
    </>
  );
}

const Heading = ({ text }: { text: string }) => (
  <Txt kind="small" tone="quiet" style={styles.heading}>
    {text}
  </Txt>
);

/** How the sound will be written, where that is not what one would expect. */
function SoundNote({ format }: { format: RenderFormat }) {
  const codec = useSoundCodec(format);
  if (!codec) return null;
  const words: Record<typeof codec, string> = {
    aac: 'The sound is written as AAC.',
    opus:
      browserFilm(format)?.container === 'mp4'
        ? 'This browser writes no AAC, so the sound goes in as Opus. Most editing programs read it; where one does not, take the PNG sequence, which has a WAV beside it.'
        : 'The sound is written as Opus.',
    mp3: 'This browser writes neither AAC nor Opus, so the sound goes in as MP3.',
    wav: format === 'wav' ? '' : 'The sound lies beside the pictures as a WAV file.',
    none:
      format === 'png'
        ? ''
        : movingPicture(format)
          ? 'Moving pictures have no sound.'
          : 'This browser writes no sound for this kind of file. Take the PNG sequence, which has a WAV beside it.',
  };
  return words[codec] ? (
    <Txt kind="small" tone={codec === 'none' ? 'amber' : 'quiet'} testID="sound-note">
      {words[codec]}
    </Txt>
  ) : null;
}

interface FormatProps {
  readonly format: RenderFormat;
  readonly chosen: boolean;
  /** Whether there is anything to hear. */
  readonly heard: boolean;
  readonly size: FrameSize;
  readonly rate: Rate;
  readonly transparent: boolean;
}

function FormatRow({ format, chosen, heard, size, rate, transparent }: FormatProps) {
  const codec = useSoundCodec(format);
  const facts = formatFacts(format);
  const support = useSupport(format, size, rate);
  const able = support?.able !== false;
  // A file is played wherever its sound is, too.
  const about =
    format === 'mp4' && heard && codec === 'opus'
      ? 'H.264 with sound as Opus: plays in browsers and most editing programs, no transparency'
      : facts.about;
  const alpha =
    !transparent || facts.alpha === undefined
      ? ''
      : facts.alpha
        ? ' Transparent.'
        : ' Black where this reel is transparent.';
  return (
    <Radio
      id={format}
      label={facts.name}
      testID={`output-format-${format}`}
      style={[styles.format, chosen && styles.chosen]}
    >
      <Icon name={chosen ? 'circle-check' : 'circle'} tint={chosen ? colour.ink : colour.edge} size={20} />
      <View style={styles.formatWords}>
        <Txt kind="strong">{facts.name}</Txt>
        <Txt kind="small" tone={able ? 'quiet' : 'amber'}>
          {able ? `${about}.${alpha}` : 'Not in this browser.'}
        </Txt>
      </View>
    </Radio>
  );
}

const styles = StyleSheet.create({
  formats: { gap: 8 },
  heading: { marginTop: 8 },
  format: {
    flexDirection: 'row',
    gap: 12,
    alignItems: 'center',
    padding: 12,
    borderRadius: CORNER,
    borderWidth: 1,
    borderColor: colour.hairline,
    backgroundColor: colour.card,
  },
  chosen: { borderColor: colour.ink },
  formatWords: { flex: 1 },
});
