/** The crew that writes films, and its threads. */
import { bundleForNode } from './bundleForNode.ts';

export default bundleForNode({
  crewProcess: 'src/crewProcess.ts',
  // The name by which the helper is started beside whatever starts it.
  'helper.worker': 'src/helperWorker.ts',
});
