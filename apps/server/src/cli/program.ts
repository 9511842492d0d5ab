import {
  EXCHANGE_KINDS,
  type ExchangeKind,
  FILM_CODECS,
  FRAMES,
  PACKAGE_ENDING,
  PICTURE_KINDS,
} from '@fresh-reel/core';
import { Command, Option } from 'commander';
import type { RenderCommand } from '../rendering/command';
import type { WorkCommand } from '../renders/work';
import type { BatchCommand } from './batch';
import type { CheckCommand } from './check';
import type { ExchangeCommand } from './exchange';
import type { FollowCommand } from './follow';
import { DOCUMENT_NAMES, type DocumentName } from './schema';
import {
  alphaOf,
  codecOf,
  endingOf,
  frameOf,
  framesOf,
  loudnessOf,
  numberOf,
  packageOf,
  patchOf,
  picturesOf,
  placeOf,
  rateOf,
  redisOf,
  serverOf,
  shapesOf,
  sideOf,
  sizeOf,
} from './values';

/** What is done with each command, once all that it was given is known to be right. */
export interface Deeds {
  list(): Promise<void>;
  render(command: RenderCommand): Promise<void>;
  batch(command: BatchCommand): Promise<void>;
  check(command: CheckCommand): Promise<void>;
  exchange(command: ExchangeCommand): Promise<void>;
  open(command: { readonly path: string; readonly json: boolean }): Promise<void>;
  unpack(command: { readonly path: string; readonly out: string }): Promise<void>;
  pack(command: { readonly what: string; readonly out: string }): Promise<void>;
  schema(kind: DocumentName): Promise<void>;
  follow(command: FollowCommand): Promise<void>;
  work(command: WorkCommand): Promise<void>;
}

const TITLE = 'a template’s id, or the path of a template or reel file';

/** Options that several commands take, as `Command.option` has them. */
const FILL = ['--fill <file>', 'words, files, controls and look for a template, as JSON'] as const;
const BRAND = ['--brand <file>', `a brand that is worn: a ${PACKAGE_ENDING} file with one in it`] as const;
const ORIGINALS = ['--originals <folder>', 'where files lie that working copies stand for'] as const;
const CODEC = ['--codec <name>', `what a film is written as: ${FILM_CODECS.join(', ')}`, codecOf] as const;
const RATE = ['--rate <rate>', 'frames a second: 25, 60000/1001', rateOf] as const;
const JSON_TOO = ['--json', 'as JSON', false] as const;

/** What `command.opts()` holds, with the names of the interfaces above. */
type Given<T> = Omit<T, 'what' | 'clip'>;

/** The command line: what may be asked, and what is said of it by `--help`. */
export function programOf(does: Deeds): Command {
  const program = new Command('fresh-reel')
    .description('Titles from templates: filled, rendered, checked and packed, without the studio.')
    .exitOverride()
    // What is wrong is thrown, and said by who catches it.
    .configureOutput({ writeErr: () => undefined });

  program
    .command('list')
    .description('the templates: id, name, and what each is for')
    .action(() => does.list());

  program
    .command('render')
    .description('renders numbered pictures into a folder, or a film')
    .argument('<title>', TITLE)
    .requiredOption(
      '--out <folder or film>',
      'where it goes: a folder for pictures, or a film such as title.mov',
    )
    .option(...FILL)
    .option(...BRAND)
    .option('--size <WxH>', 'pixels, such as 1920x1080', sizeOf)
    .option(...RATE)
    .option('--frames <A-B>', 'first and last frame, counted from 0', framesOf)
    .option(...ORIGINALS)
    .option(...CODEC)
    .addOption(
      new Option('--pictures <kind>', `what pictures are written as: ${PICTURE_KINDS.join(', ')}`)
        .argParser(picturesOf)
        .conflicts('codec'),
    )
    .option('--number <n>', 'what pictures are counted from, such as 1001', numberOf)
    .option('--alpha <how>', 'how transparency is kept: straight, premultiplied, none', alphaOf)
    .option('--timecode <tc>', 'of the first frame, such as 01:00:00:00')
    .action((what: string, given: Given<RenderCommand>) => does.render({ ...given, what }));

  program
    .command('batch')
    .description('renders a title for each row of a table')
    .argument('<title>', TITLE)
    .requiredOption('--table <file>', 'rows of words and files, such as people.csv')
    .requiredOption('--out <folder>', 'where the files go')
    .option(...BRAND)
    .option('--pictures <folder>', 'where files lie that cells name')
    .option('--shapes <names>', `frame shapes: ${Object.keys(FRAMES).join(',')}`, shapesOf)
    .option('--name <pattern>', 'of each file, with names of columns: "{name}"')
    .option(...CODEC)
    .option(...RATE)
    .option('--side <pixels>', 'of the shorter side, such as 1080', sideOf)
    .action((what: string, given: Given<BatchCommand>) => does.batch({ ...given, what }));

  program
    .command('check')
    .description('says what an editor should look at before a render; ends with 1 where something is wrong')
    .argument('<title>', TITLE)
    .option(...FILL)
    .option(...BRAND)
    .option('--loudness <LUFS>', 'that is wanted, such as -14', loudnessOf)
    .option(...ORIGINALS)
    .option(...JSON_TOO)
    .action((what: string, given: Given<CheckCommand>) => does.check({ ...given, what }));

  const exchange = program
    .command('exchange')
    .description('writes where the titles of a reel stand, for other tools')
    .argument('<reel>', 'a reel file');
  for (const kind of EXCHANGE_KINDS) exchange.option(`--${kind} <file>`, `writes ${kind.toUpperCase()}`);
  exchange
    .option('--start <tc>', 'timecode of the reel’s first frame')
    .option('--ending <ending>', 'of the files that titles are rendered as', endingOf, 'webm')
    .action(
      (what: string, { start, ending, ...files }: ExchangeCommand & Partial<Record<ExchangeKind, string>>) =>
        does.exchange({ what, start, ending, files }),
    );

  program
    .command('open')
    .description('tells what a package holds and lacks, and takes nothing out of it')
    .argument('<package>', `a ${PACKAGE_ENDING} file`)
    .requiredOption('--list', 'tells it line by line')
    .option(...JSON_TOO)
    .action((path: string, { json }: { json: boolean }) => does.open({ path, json }));

  program
    .command('unpack')
    .description('lays a package out in a new folder')
    .argument('<package>', `a ${PACKAGE_ENDING} file`)
    .requiredOption('--out <folder>', 'a folder that is not there yet')
    .action((path: string, { out }: { out: string }) => does.unpack({ path, out }));

  program
    .command('pack')
    .description('makes a package of a folder as unpack lays one out, or of a template that ships')
    .argument('<folder or template>', 'a folder, or a template’s id')
    .requiredOption('--out <file>', `a file that ends in ${PACKAGE_ENDING}`, packageOf)
    .action((what: string, { out }: { out: string }) => does.pack({ what, out }));

  program
    .command('schema')
    .description('the format of a kind of document, as JSON Schema')
    .addArgument(program.createArgument('[kind]', 'of document').choices(DOCUMENT_NAMES).default('template'))
    .action((kind: DocumentName) => does.schema(kind));

  program
    .command('follow')
    .description('follows a patch of a clip, frame by frame')
    .argument('<clip>', 'a film')
    .requiredOption('--at <X,Y>', 'the middle of the patch, in pixels', placeOf)
    .option('--size <pixels>', 'width of the patch', patchOf)
    .option('--frame <n>', 'in which it is there, counted from 0', frameOf, 0)
    .option(...JSON_TOO)
    .action((clip: string, given: Given<FollowCommand>) => does.follow({ ...given, clip }));

  program
    .command('work')
    .description('takes ranges of renders from a queue, and makes them')
    .addOption(
      new Option('--redis <address>', 'of the queue, such as redis://machine:6379')
        .env('FRESH_REEL_REDIS')
        .argParser(redisOf)
        .makeOptionMandatory(),
    )
    .addOption(
      new Option('--server <address>', 'the one server to work for, such as http://studio:4173')
        .env('FRESH_REEL_SERVER')
        .argParser(serverOf),
    )
    .addOption(new Option('--token <token>', 'of that server').env('FRESH_REEL_TOKEN'))
    .option('--data <folder>', 'where what is fetched is kept')
    .action((given: WorkCommand) => does.work(given));

  return program;
}
