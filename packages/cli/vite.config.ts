/** The command line, its crew and its helper thread. */
import { bundleForNode } from '../node/bundleForNode.ts';

export default bundleForNode({
  main: 'src/main.ts',
  // The names by which these are started beside whatever starts them.
  crewProcess: '../node/src/crewProcess.ts',
  'helper.worker': '../node/src/helperWorker.ts',
});
