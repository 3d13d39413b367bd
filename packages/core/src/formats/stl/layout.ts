/** Where things stand in the blocks of an EBU STL file (EBU Tech 3264), and the codes in its text. */

/** Bytes of the General Subtitle Information block, and of each Text and Timing Information block. */
export const GSI = 1024;
export const TTI = 128;
/** Bytes of text in a TTI block, which come last in it. */
export const TEXT = 112;

/** Fields of the GSI block: the first byte, and how many. */
export const FIELDS = {
  codePage: [0, 3],
  diskFormat: [3, 8],
  display: [11, 1],
  codeTable: [12, 2],
  language: [14, 2],
  title: [16, 32],
  episode: [48, 32],
  created: [224, 6],
  revised: [230, 6],
  revision: [236, 2],
  blocks: [238, 5],
  subtitles: [243, 5],
  groups: [248, 3],
  longestRow: [251, 2],
  rows: [253, 2],
  timeStatus: [255, 1],
  programmeStart: [256, 8],
  firstCue: [264, 8],
  disks: [272, 1],
  disk: [273, 1],
  country: [274, 3],
} as const;

/** Codes in the text field. */
export const CODES = {
  /** 0x00 to 0x07 are these in turn: teletext colours, each in the cell of a space. */
  colours: ['#000000', '#ff0000', '#00ff00', '#ffff00', '#0000ff', '#ff00ff', '#00ffff', '#ffffff'],
  boxEnd: 0x0a,
  boxStart: 0x0b,
  doubleHeight: 0x0d,
  italic: 0x80,
  italicOff: 0x81,
  underline: 0x82,
  underlineOff: 0x83,
  newLine: 0x8a,
  unused: 0x8f,
} as const;

/** Last of the blocks of one subtitle, and one that holds no text but data of its user. */
export const LAST_BLOCK = 0xff;
export const USER_DATA = 0xfe;
/** Rows of a teletext page that text may stand on, and of an open subtitle where no number is given. */
export const ROWS = 23;
