/** The command line, and its helper thread. */
import { bundleForNode } from '../node/bundleForNode.ts';

export default bundleForNode({
  main: 'src/main.ts',
  // The name by which the helper is started beside whatever starts it.
  'helper.worker': '../node/src/helperWorker.ts',
});
