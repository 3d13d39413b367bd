/** The format of a programme that is written as one file. */
export const FILE_FORMAT = 'woven-cadence/programme/1';
