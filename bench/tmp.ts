import { readFileSync } from 'node:fs';
import { parseRecord } from '@zugluft/core/record/parseRecord';
import { estimateWithDraws } from '@zugluft/core/uncertainty/estimateWithDraws';
const load=(n:string)=>parseRecord(JSON.parse(readFileSync(`examples/${n}.json`, 'utf8'))).record!;
const r=load('two-fan-shared-pipes');
for (const n of [200,1000,1000,2000]) { const t=Date.now(); const {estimate:e,summary}=estimateWithDraws(r,{draws:n,caps:[28,32,36,40,45],envelopes:false}); console.log(n,Date.now()-t,'ms'); if(n===2000){ for(const c of e.caps) console.log(c.cap,c.together.watts.toFixed(1),c.together.p05!.toFixed(1),c.together.p95!.toFixed(1)); console.log(summary.fits.slice(0,3)); console.log(summary.sensitivity.filter(s=>s.cap===36&&s.readout==='together').slice(0,15).map(s=>s.input+' '+s.share.toFixed(3)).join('\n')); console.log(summary.next.find(x=>x.cap===36&&x.readout==='together'))}}
import { planDraws, runDraws, READOUTS } from '@zugluft/core/uncertainty/draws';
import { resolveCase } from '@zugluft/core/record/resolveCase';
import { estimate } from '@zugluft/core/estimate';
{ const plan=planDraws(r,{draws:300,caps:['full']}); const cnt:any={}; const med:any={};
 for(let row=0;row<300;row++){ const o=new Map<string,number>(); plan.columns.forEach((c,k)=>c.inputs.forEach(i=>o.set(i.path,i.quantile(plan.u[k*300+row]!)))); const e=estimate(r,{overrides:o,caps:['full'],envelopes:false}).caps[0]!; const k=e.together.binding.limit+' '+e.together.binding.part+' '+(e.together.binding.kind??''); cnt[k]=(cnt[k]||0)+1; (med[k]??=[]).push(e.together.watts)}
 console.log(cnt, Object.entries(med).map(([k,v]:any)=>k+' '+v.sort((a:number,b:number)=>a-b)[v.length>>1].toFixed(0)));
 const t0=Date.now(); for(let i=0;i<300;i++){const o=new Map<string,number>(); plan.columns.forEach((c,k)=>c.inputs.forEach(x=>o.set(x.path,x.quantile(plan.u[k*300+i]!))));} console.log('quantiles',(Date.now()-t0)/300,'ms', plan.columns.length);
 const out=new Float64Array(300*3); const t1=Date.now(); runDraws(plan,0,300,out); console.log('1 cap',(Date.now()-t1)/300);
}
