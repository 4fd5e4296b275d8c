import { readImports } from './imports';
const t=Date.now(); const m = readImports(); console.log(m.size, Date.now()-t);
// tarjan
let idx=0; const st:string[]=[]; const I=new Map<string,number>(),L=new Map<string,number>(); const on=new Set<string>();
function go(v:string){I.set(v,idx);L.set(v,idx);idx++;st.push(v);on.add(v);for(const w of m.get(v)??[]){if(!I.has(w)){go(w);L.set(v,Math.min(L.get(v)!,L.get(w)!));}else if(on.has(w))L.set(v,Math.min(L.get(v)!,I.get(w)!));}
if(L.get(v)===I.get(v)){const c=[];let w;do{w=st.pop()!;on.delete(w);c.push(w)}while(w!==v);if(c.length>1)console.log('CYCLE',c);}}
for(const v of m.keys()) if(!I.has(v)) go(v);
