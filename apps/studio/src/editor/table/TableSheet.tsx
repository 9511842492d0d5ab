import { type FrameShape, markRows, messageOf, placeRows, type RenderFormat } from '@fresh-reel/core';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { WearingToggle } from '../../brand/WearingToggle';
import { pickFile, pickFiles, SHELF_FILES } from '../../disk/pickFile';
import { useFileDrop } from '../../disk/useFileDrop';
import { useAttempt } from '../../editing/session/useAttempt';
import { useReelEditor } from '../../editing/session/useReelEditor';
import { TakingIn } from '../../media/import/TakingIn';
import { useImport } from '../../media/import/useImport';
import { startRender } from '../../render/queue/jobs';
import { keys } from '../../storage/queries';
import { Banner } from '../../ui/Banner';
import { Button } from '../../ui/Button';
import { Field } from '../../ui/Field';
import { Sheet } from '../../ui/Sheet';
import { useToast } from '../../ui/Toast';
import { Txt } from '../../ui/Txt';
import { CORNER, colour } from '../../ui/theme';
import { VirtualGrid } from '../../ui/VirtualGrid';
import { AlsoShapes } from '../plans/AlsoShapes';
import { plansOf } from '../plans/plansOf';
import { ColumnRows } from './ColumnRows';
import { RowCard } from './RowCard';
import { type ReadTable, type Row, useTable } from './useTable';

/** Endings of what is read. */
const ACCEPT = '.csv,.tsv,.txt,.otio,.edl,.vtt,.srt,text/csv,text/plain';
const TABLE = /\.(csv|tsv|txt|otio|edl|vtt|srt)$/i;

/** A table that fills the reel: each row becomes a film of its own, a graphic of the reel, or a marker. */
export function TableSheet({ format, onClose }: { format: RenderFormat; onClose: () => void }) {
  const { reel } = useReelEditor();
  const { read, brands, from, fault, open, paste, choose, close } = useTable(reel);
  const [pasted, setPasted] = useState('');
  const taking = useImport();
  const client = useQueryClient();
  const bring = async (files: readonly File[]) => {
    if (files.length === 0) return;
    await taking.take(files);
    await client.invalidateQueries({ queryKey: keys.media });
  };
  // A table and its pictures may be dropped together.
  const { ref, over } = useFileDrop((files) => {
    const tables = files.filter((file) => TABLE.test(file.name));
    if (tables[0]) void open(tables[0]);
    void bring(files.filter((file) => !tables.includes(file)));
  });
  return (
    <Sheet title="By a table" onClose={onClose} testID="table-sheet">
      <View ref={ref} style={[styles.all, over && styles.over]}>
        {fault && (
          <Banner kind="fault" testID="table-fault">
            {fault}
          </Banner>
        )}
        <TakingIn taking={taking} />
        {read ? (
          <>
            <View style={styles.line}>
              <Txt style={styles.grow} testID="table-said">
                {`${read.rows.length} ${read.rows.length === 1 ? 'row' : 'rows'} from ${from}.`}
              </Txt>
              <Button title="Another table" small onPress={close} testID="table-other" />
            </View>
            <ColumnRows reel={reel} brands={brands} read={read} onChoose={choose} />
            <WearingToggle />
            {read.missing.length > 0 && (
              <Banner
                kind="watch"
                testID="table-missing"
                action={
                  <Button
                    title="Bring them"
                    small
                    onPress={() => void pickFiles(SHELF_FILES).then(bring)}
                    testID="table-bring"
                  />
                }
              >
                {`Not on the Shelf: ${read.missing.join(', ')}.`}
              </Banner>
            )}
            <Rows read={read} format={format} onClose={onClose} />
          </>
        ) : (
          <>
            <Txt tone="quiet">
              The first row names the columns; each other row fills the reel once. Columns that are named as
              its words, pictures and controls fill them; pictures are named by file, from the Shelf.
              Timelines, edit lists and subtitles are tables, too: with times.
            </Txt>
            <View style={styles.line}>
              <Button
                title="Open a table"
                icon="file-text"
                onPress={() => void pickFile(ACCEPT).then((file) => (file ? open(file) : undefined))}
                testID="table-open"
              />
            </View>
            <Field
              label="Or paste its cells here"
              value={pasted}
              multiline
              numberOfLines={5}
              onChangeText={setPasted}
              testID="table-paste"
            />
            <View style={styles.line}>
              <Button
                title="Read them"
                disabled={pasted.trim() === ''}
                onPress={() => paste(pasted)}
                testID="table-read"
              />
            </View>
          </>
        )}
      </View>
    </Sheet>
  );
}

function Rows({ read, format, onClose }: { read: ReadTable; format: RenderFormat; onClose: () => void }) {
  const { mayEdit } = useReelEditor();
  const attempt = useAttempt();
  const toast = useToast();
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const [shapes, setShapes] = useState<readonly FrameShape[]>([]);
  const { rows, graphic, still, uses } = read;
  const chosen = rows.filter((row) => !left.has(row.number));
  const wrong = chosen.filter((row) => row.faults.length > 0);
  const files = chosen.flatMap((row) => plansOfRow(row, format, shapes));
  const timed = uses.some((use) => use?.of === 'from');
  const fills = uses.some((use) => use && 'graphic' in use);
  const render = () => {
    for (const { reel: part, plan } of files)
      startRender(part, plan).catch((error: unknown) =>
        toast({ text: `${plan.fileName} could not be put in the queue. ${messageOf(error)}` }),
      );
    toast({ text: `${files.length} renders are in the queue.` });
    onClose();
  };
  const place = () => {
    let unlike = 0;
    const done = attempt((r) => {
      const placed = placeRows(
        r,
        graphic!,
        chosen.map((row) => ({ ...row.times, reel: row.reel })),
      );
      unlike = placed.unlike;
      return placed.reel;
    });
    if (!done) return;
    toast({
      text:
        unlike > 0
          ? `${chosen.length} titles are in the reel. ${unlike} of them do not end when the table says: their template holds no shorter or longer, or the next one comes first.`
          : `${chosen.length} titles are in the reel.`,
    });
    onClose();
  };
  const mark = () => {
    const done = attempt(
      (r) =>
        markRows(
          r,
          chosen.map((row) => ({ ...row.times, name: row.words })),
        ).reel,
    );
    if (done) onClose();
  };
  return (
    <View style={styles.all}>
      {!fills && (
        <Banner kind="watch" testID="table-unused">
          No column is named as anything of this reel. Say above what they fill.
        </Banner>
      )}
      {read.timesFault && <Banner kind="watch">{read.timesFault}</Banner>}
      {read.hours > 0 && (
        <Txt
          kind="small"
          tone="quiet"
        >{`${read.hours}:00:00 of its times counts as the beginning of the reel.`}</Txt>
      )}
      <View style={styles.line}>
        <Txt kind="lead" level={3} style={styles.grow} testID="rows-chosen">
          {`${chosen.length} of ${rows.length} rows`}
        </Txt>
        <Button
          title={left.size > 0 ? 'Choose all' : 'Choose none'}
          small
          onPress={() => setLeft(left.size > 0 ? new Set() : new Set(rows.map((r) => r.number)))}
          testID="rows-all"
        />
      </View>
      <VirtualGrid
        items={rows}
        keyOf={(row) => String(row.number)}
        columns={2}
        gap={8}
        height={150}
        render={(row) => (
          <RowCard
            row={row}
            graphic={graphic}
            still={still}
            chosen={!left.has(row.number)}
            onChoose={(on) => {
              const next = new Set(left);
              if (on) next.delete(row.number);
              else next.add(row.number);
              setLeft(next);
            }}
          />
        )}
      />
      {wrong.length > 0 && (
        <Banner kind="watch" testID="rows-wrong">
          {`${wrong.length === 1 ? 'One row says' : `${wrong.length} rows say`} what cannot be used. Put it right in the table, or leave ${wrong.length === 1 ? 'it' : 'them'} out.`}
        </Banner>
      )}
      <AlsoShapes shapes={shapes} onShapes={setShapes} testID="rows-also" />
      <View style={styles.actions}>
        <Button
          title={`Render ${files.length} ${files.length === 1 ? 'file' : 'files'}`}
          kind="next"
          icon="film"
          disabled={!fills || files.length === 0 || wrong.length > 0}
          onPress={render}
          testID="rows-render"
        />
        <Button
          title={timed ? 'Put them in the reel, at their times' : 'Put them in the reel'}
          disabled={!mayEdit || graphic === undefined || chosen.length === 0 || wrong.length > 0}
          onPress={place}
          testID="rows-place"
        />
        {timed && (
          <Button
            title="Set markers"
            disabled={!mayEdit || chosen.length === 0 || read.timesFault !== undefined}
            onPress={mark}
            testID="rows-mark"
          />
        )}
      </View>
    </View>
  );
}

/** The files of a row: as the reel is rendered, named by the row. */
function plansOfRow(row: Row, format: RenderFormat, shapes: readonly FrameShape[]) {
  const { output, frame } = row.reel;
  const { side = Math.min(frame.width, frame.height), extent = 'all', range, draft = false } = output ?? {};
  return plansOf({ ...row.reel, name: row.name }, { format, side, extent, range, shapes, draft });
}

const styles = StyleSheet.create({
  all: { gap: 14, paddingBottom: 12 },
  over: { backgroundColor: colour.blueTint, borderRadius: CORNER },
  line: { flexDirection: 'row', alignItems: 'center', gap: 10 },
  grow: { flex: 1 },
  actions: { flexDirection: 'row', flexWrap: 'wrap', gap: 10 },
});
