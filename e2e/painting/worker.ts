import { drawHere } from './browser.ts';

void drawHere().then((drawn) => self.postMessage(drawn));
