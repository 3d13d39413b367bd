/** The stage of this window, on which all pictures with text are drawn. Loaded with the first text. */
import { Stage } from '@cadence/paint/stage.ts';
import { stageFiles } from '../workers/stageFiles.ts';

export const stage = new Stage(stageFiles);
export const { shelf } = stage;
