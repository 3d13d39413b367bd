/** The depot that the settings name. */
import { resolve } from 'node:path';
import { FolderDepot, type Depot } from './depot.ts';

/**
 * @param place  a folder that machines share, or `s3://bucket/prefix`
 */
export async function openDepot(place: string): Promise<Depot> {
  if (!place.startsWith('s3://')) return new FolderDepot(resolve(place), true);
  const { S3Depot } = await import('./s3Depot.ts');
  return S3Depot.open(place);
}
