const b='http://127.0.0.1:4700/api/v1/shows/lantern-regatta';
const { show, revision } = await (await fetch(b)).json();
const pics = show.slides.map((s,i)=>[i,s.id,s.layers.find(l=>l.kind==='picture')]).filter(x=>x[2]);
const at=(i)=>show.slides[i];
const w=(i,words)=>({kind:'set-words',slideId:at(i).id,layerId:at(i).layers.find(l=>l.kind==='words')?.id ?? 'planted-'+i,words});
const edits=[
 w(4,{title:'Three hundred lanterns, all lit by hand',subtitle:'',place:'centre',style:{colour:'#f0b060',shadow:'none'}}),
 w(6,{title:'The boats leave',subtitle:'',place:'bottom',style:{colour:'#3a3048',shadow:'none'}}),
 w(8,{title:'Every boat in Port Elery carries a lantern, and everybody who has none walks along the quay with one; nobody is left in the dark that evening',subtitle:'And the band plays on',place:'bottom'}),
 {kind:'set-move',slideId:pics[5][1],layerId:pics[5][2].id,move:{kind:'set',first:{x:.5,y:.5,width:.2,height:.2,turnDegrees:0},last:{x:.9,y:.5,width:.5,height:.5,turnDegrees:0}}},
 {kind:'set-transitions',transitions:[{slideId:at(9).id,transition:{kind:'dissolve',lengthMs:4500}}]},
 {kind:'set-layer-properties'},
];
edits.pop();
// the same picture again
const dup={...at(10),id:'twice',layers:at(10).layers.map(l=>({...l,id:'tw-'+l.id})),sounds:[]};
edits.push({kind:'add-slides',runs:[{afterId:at(11).id,slides:[dup]}]});
const r = await fetch(b+'/edits',{method:'POST',headers:{'content-type':'application/json'},body:JSON.stringify({knownRevision:revision,edits:edits.map((edit,i)=>({editId:'plant-'+Date.now()+'-'+i,edit}))})});
console.log(r.status, (await r.text()).slice(0,600));
