/** Containers of one file each; playlists that would have to be fetched are not among them. */
import { ADTS, FLAC, MATROSKA, MP3, MP4, OGG, QTFF, WAVE, WEBM } from 'mediabunny';

export const containers = [WAVE, FLAC, MP3, OGG, MP4, QTFF, WEBM, MATROSKA, ADTS];
