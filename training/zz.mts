import { readdirSync, readFileSync, existsSync } from 'node:fs';
import { join } from 'node:path';
import { lineStarts } from '@cadence/core/text/sentences.ts';
import { wordsOf } from '@cadence/core/text/words.ts';
import { toSeconds } from '@cadence/core/time/ticks.ts';
import { weaveSound } from '@cadence/node/weave.ts';
for (const folder of process.argv.slice(2)) for (const f of readdirSync(folder).sort()) {
  if (!f.endsWith('.truth.json')) continue;
  const base = join(folder, f.replace('.truth.json',''));
  const path=[`${base}.wav`,`${base}.flac`].find(n=>existsSync(n))!;
  const truth=JSON.parse(readFileSync(base+'.truth.json','utf8'));
  const text=readFileSync(base+'.txt','utf8'); const words=wordsOf(text).map(w=>w.text); const lines=lineStarts(text);
  const woven=(await weaveSound(path,'en',[{words,lines,taps:[]}])).woven[0]!;
  let bad=0; truth.words.forEach((w:any,i:number)=>{const s=woven[i]!.start; if(s===null||Math.abs(toSeconds(s)-w.start)>.1) bad++;});
  console.log(`${f.slice(0,8)} ratio ${truth.ratio?.toFixed(1)} bad ${bad}/${words.length}`);
  for (const l of truth.lines) { const [a,b]=l.words; const es=[]; let any=false; for(let i=a;i<b;i++){const s=woven[i]!.start; const e=s===null?null:toSeconds(s)-truth.words[i].start; if(e===null||Math.abs(e)>.1) any=true; es.push(`${words[i]}${e===null?' -':' '+e.toFixed(2)}(${woven[i]!.confidence.toFixed(1)})`);} if(any) console.log('   ',truth.words[a].start.toFixed(1)+'-'+truth.words[b-1].end.toFixed(1), es.join(' ')); }
}
