import { semi } from './test/rigsInAir';
import { faultsOf } from './twin/faults/faultsOf';
import { shownBy, signatureOf } from './twin/signature/signature';
const sound=shownBy(semi); console.log(JSON.stringify(sound));
const s0=performance.now(); let n=0, none=0;
for(const f of faultsOf(semi)) { const row=[.1,.5,1].map(sev=>{ n++; try { const sh=shownBy(semi,[[f,sev]]); const g=signatureOf(sh,sound); return g.figures.map(k=>k+' '+(sh.dash[k]??NaN).toFixed(1)).join(', ')+(g.blows.length?' | '+g.blows.map(b=>b.when[0]+':'+b.way+' '+b.scfm.toFixed(2)).join(', '):''); } catch(e){ return 'ERR '+e; } }); console.log(f.id+'\n   '+row.join('\n   ')); }
console.log(n,(performance.now()-s0)/n);
