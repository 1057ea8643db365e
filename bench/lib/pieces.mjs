// The same faults, and the same correct constructs, in everything that they may stand in: what a rule leaves alone for the sake of one
// surrounding must not be left alone in another. Each is a piece of style and of markup about 300 px wide.
export const WORDS =
  '<p>Twelve boats are expected before the evening tide; two of them carry more than they said.</p>';
const PICTURE = `<img alt="Boat" src="data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' width='60' height='60'%3E%3Crect width='60' height='60' fill='%23c85'/%3E%3C/svg%3E">`;

export const FAULTS = {
  wordsOnWords: [
    '.fa{position:relative;height:60px}.fa b{position:absolute;left:0;top:0;white-space:nowrap}.fa i{position:absolute;left:70px;top:0;white-space:nowrap}',
    '<div class=fa><b>Wickham Quay north</b><i>Far Isle light</i></div>',
  ],
  wordsOutOfBox: [
    '.fb{width:150px;background:#dde8ff;border:1px solid #88a;padding:6px}.fb span{white-space:nowrap}',
    '<div class=fb><span>Expected before the evening tide</span></div>',
  ],
  wordsBelowBox: [
    '.fc{height:30px;width:200px;background:#dde8ff;border:1px solid #88a;padding:6px;margin-bottom:90px}',
    '<div class=fc>Expected before the evening tide of the last day of the week, or later</div>',
  ],
  lineCutAtEnd: [
    '.fd{width:140px;overflow:hidden;white-space:nowrap}',
    '<div class=fd>Expected before the evening tide</div>',
  ],
  linesCutBelow: [
    '.fe{height:30px;width:200px;overflow:hidden}',
    '<div class=fe>Expected before the evening tide of the last day of the week, or later</div>',
  ],
  wordsCovered: [
    '.ff{position:relative;width:240px}.ff u{position:absolute;left:60px;top:0;width:90px;height:24px;background:#c85}',
    '<div class=ff>Expected before the evening tide<u></u></div>',
  ],
  buttonOnButton: [
    '.fg{position:relative;width:240px;height:60px}.fg button{position:absolute;top:0;height:36px;width:110px}.fg button+button{left:70px}',
    '<div class=fg><button>Send</button><button style="left:70px">Delete</button></div>',
  ],
  buttonCut: [
    '.fh{width:120px;overflow:hidden;display:flex}.fh button{flex:none;width:90px;height:36px}',
    '<div class=fh><button>Send</button><button>Delete</button></div>',
  ],
  pictureUnderWords: [
    '.fi{width:140px}.fi img{width:220px;height:60px;display:block}.fk{display:flex;width:300px}.fk p{margin:0}',
    `<div class=fk><div class=fi><img alt="Boat" src="data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' width='60' height='60'%3E%3Crect width='60' height='60' fill='%23c85'/%3E%3C/svg%3E"></div><p>Expected before the evening tide of the last day</p></div>`,
  ],
  linesCutAbove: [
    '.fl{height:40px;width:220px;overflow:hidden;display:flex;align-items:center}',
    '<div class=fl><div>Expected before the evening tide of the last day of the week, or later</div></div>',
  ],

  signOnField: [
    '.f1{position:relative;width:220px}.f1 input{width:100%;height:36px;padding:0 8px}.f1 svg{position:absolute;left:6px;top:8px}',
    '<div class=f1><input aria-label=Name value="Ada Orme"><svg width=20 height=20 viewBox="0 0 20 20"><circle cx=10 cy=10 r=9 fill="#246"/></svg></div>',
  ],
  linesTooClose: [
    '.f2{width:160px;line-height:.6;font-size:22px}',
    '<div class=f2>Expected before the evening tide</div>',
  ],
  headsCut: [
    '.f3{font-size:26px;line-height:1;height:19px;overflow:hidden;width:260px}',
    '<div class=f3>Étang gypsy quay</div>',
  ],
  cutByCorners: [
    '.f4{width:150px;height:64px;border-radius:32px;overflow:hidden;background:#cde}',
    '<div class=f4>Evening tide of the last day, late</div>',
  ],
  cutByClipPath: [
    '.f5{width:200px;clip-path:inset(0 90px 0 0)}',
    '<div class=f5>Expected before the evening tide</div>',
  ],
  floatOutOfBox: [
    '.f6{border:1px solid #88a;width:260px;margin-bottom:90px;padding:6px}.f6 img{float:left;width:60px;height:100px;margin-right:8px}.f6+*{clear:both}',
    `<div class=f6>${PICTURE}Heron</div><div></div>`,
  ],
  pulledOnWords: [
    '.f7 b{display:block;margin-bottom:-14px}',
    '<div class=f7><b>Wickham Quay at noon</b><span>Far Isle light at one</span></div>',
  ],
  lineThroughWords: [
    '.f8{position:relative;width:240px}.f8 i{position:absolute;left:0;right:0;top:11px;height:2px;background:#246}',
    '<div class=f8>Expected before the tide<i></i></div>',
  ],
  panelOnWords: [
    '.f9{position:relative;width:260px;height:56px;overflow:visible}.f9 div{position:absolute;left:0;bottom:0;background:#dde8ff;height:24px;width:150px}.f9 p{margin:0}',
    '<div class=f9><p>Expected before the evening tide of the last day</p><div>Heron</div></div>',
  ],
  countOnWords: [
    '.g1{position:relative;width:170px;border:1px solid #88a;padding:6px}.g1 em{position:absolute;right:4px;top:6px;background:#c33;color:#fff;padding:0 6px}',
    '<div class=g1>Evening tide, late<em>New</em></div>',
  ],
  priceCut: [
    '.g2{width:150px;overflow:hidden;white-space:nowrap;text-overflow:ellipsis}',
    '<div class=g2>Heron with three strands <b>18.40</b></div>',
  ],
  columnsThatMeet: [
    '.g4{display:flex;width:250px}.g4 div{width:50%;white-space:nowrap}',
    '<div class=g4><div>Unaccompanied boats</div><div>12.40 at noon</div></div>',
  ],
  cellsThatMeet: [
    '.g5{table-layout:fixed;width:180px}',
    '<table class=g5><tr><td>Unaccompanied<td>Ferryman</table>',
  ],
  outOfReach: [
    '.g6{width:240px;height:50px;overflow:auto;display:flex;justify-content:center}.g6 span{flex:none;width:160px;background:#cde}',
    '<div class=g6><span>North quay</span><span>South quay</span></div>',
  ],
  placeholderCut: [
    '.g7{width:110px}',
    '<input class=g7 aria-label=Name placeholder="Your name and your boat">',
  ],
};

export const CORRECT = {
  menu: [
    '.o1{display:flex;gap:12px;flex-wrap:wrap}',
    '<nav class=o1><a href=/a>Boats</a><a href=/b>Repairs</a><a href=/c>Chandlery</a></nav>',
  ],
  card: [
    '.o2{border:1px solid #88a;padding:12px;width:260px;border-radius:8px}',
    '<div class=o2><h3>Dinghy</h3><p>Nine feet, with oars.</p><button>Ask</button></div>',
  ],
  signBesideValue: [
    '.o3{position:relative;width:240px}.o3 input{width:100%;padding:8px 8px 8px 34px}.o3 svg{position:absolute;left:8px;top:10px}',
    '<div class=o3><input aria-label=Name value="Ada Orme"><svg width=18 height=18 viewBox="0 0 20 20"><circle cx=10 cy=10 r=9 fill="#246"/></svg></div>',
  ],
  countAtCorner: [
    '.o4{position:relative;display:inline-block;padding:8px 12px;border:1px solid #88a}.o4 i{position:absolute;top:-9px;right:-9px;background:#c33;color:#fff;border-radius:9px;font-size:12px;padding:0 6px}',
    '<div class=o4>Basket<i>3</i></div>',
  ],
  shortened: [
    '.o5{width:160px;overflow:hidden;white-space:nowrap;text-overflow:ellipsis}',
    '<div class=o5>Expected before the evening tide of the day</div>',
  ],
  captionOnPicture: [
    '.o6{position:relative;width:240px;height:120px;background:#468}.o6 p{position:absolute;left:0;right:0;bottom:0;margin:0;padding:6px;background:#0008;color:#fff}',
    '<div class=o6><p>Launch of the Heron</p></div>',
  ],
  table: [
    '.o7{border-collapse:collapse}.o7 td{border:1px solid #ccc;padding:4px 8px}',
    '<table class=o7><tr><td>Heron<td>05:40<td>Ada</tr><tr><td>Tern<td>06:10<td>Bo</tr></table>',
  ],
  shingled: [
    '.o8 b{display:inline-block;width:36px;height:36px;border-radius:18px;background:#c85;color:#fff;text-align:center;line-height:36px;margin-right:-8px;border:2px solid #fff;box-sizing:content-box}',
    '<div class=o8><b>AO</b><b>BO</b><b>CO</b></div>',
  ],
  rowThatScrolls: [
    '.o9{display:flex;gap:8px;overflow-x:auto;width:260px}.o9 div{flex:0 0 140px;background:#dde8ff;padding:8px}',
    '<div class=o9><div>North</div><div>South</div><div>East</div></div>',
  ],
  numbered: ['', '<ol><li>Wash the hull</li><li>Sound it</li><li>Write it down</li></ol>'],
  switch: [
    '.oa{width:44px;height:24px;border-radius:12px;background:#48c;position:relative;display:inline-block}.oa i{position:absolute;left:22px;top:2px;width:20px;height:20px;border-radius:10px;background:#fff}',
    '<label>Tell me <span class=oa><i></i></span></label>',
  ],
  floatHeld: [
    '.ob{display:flow-root;border:1px solid #88a;padding:8px;width:280px}.ob img{float:left;width:60px;height:60px;margin-right:8px}',
    `<div class=ob>${PICTURE}Heron and her crew come in with the tide.</div>`,
  ],
  clamped: [
    '.oc{width:220px;display:-webkit-box;-webkit-line-clamp:2;-webkit-box-orient:vertical;overflow:hidden}',
    '<div class=oc>Expected before the evening tide of the last day of the week, or later when it blows from the north and nobody can see the light</div>',
  ],
  labelOnBorder: [
    '.od{position:relative;display:block;width:240px;margin-top:16px}.od span{position:absolute;left:8px;top:-9px;background:#fff;padding:0 4px;font-size:13px}.od input{width:100%;padding:10px}',
    '<label class=od><span>Your name</span><input value=Ada></label>',
  ],
  choice: [
    '',
    '<select aria-label=Wood><option>Larch</option><option>Oak</option></select> <button>Go</button>',
  ],
  hero: [
    '.oe{background:#246;color:#fff;padding:24px;text-align:center;width:300px}',
    '<div class=oe><h2>Boats that come back</h2><button>Ask</button></div>',
  ],
};
