<style>
@font-face{font-family:Text;src:url(data:font/woff2;base64,{{ $textFont }});font-weight:200 800}
@font-face{font-family:Digits;src:url(data:font/woff2;base64,{{ $digitFont }});font-weight:300 900;unicode-range:U+30-39}
@font-face{font-family:Cell;src:url(data:font/woff2;base64,{{ $cellFont }});font-weight:200 800}
@page{size:A4;margin:18mm 16mm 20mm;@bottom-left{content:"{{ addcslashes(preg_replace('/[\x00-\x1F<>&]/', ' ', $foot), '"\\') }}";font:9pt Digits,Text,"Noto Sans","Noto Sans Arabic","Noto Sans Hebrew",NanumGothic,"Droid Sans Fallback",sans-serif;color:#4c5967}@bottom-right{content:counter(page) " / " counter(pages);font:9pt Digits,Text,sans-serif;color:#4c5967}}
*{box-sizing:border-box}
body{margin:0;font:10.5pt/1.42 Digits,Text,"Noto Sans","Noto Sans Arabic","Noto Sans Hebrew",NanumGothic,"Droid Sans Fallback",sans-serif;color:#17202c;font-variant-numeric:tabular-nums}
h1{font-size:20pt;line-height:1.15;margin:8pt 0 4pt;font-weight:650;letter-spacing:-.01em}
h2{font-size:12.5pt;margin:18pt 0 4pt;font-weight:650;break-after:avoid}
h3{font-size:10.5pt;margin:12pt 0 2pt;font-weight:650;break-after:avoid}
p{margin:0 0 6pt;max-width:68ch}
table{border-collapse:collapse;width:100%;margin:2pt 0 8pt}
tbody th{min-width:26mm} thead{display:table-header-group} tr{break-inside:avoid}
th,td{padding:3.5pt 6pt 3.5pt 0;border-bottom:.75pt solid #d5dbe1;text-align:left;vertical-align:top;font-weight:400}
thead th{font-size:9pt;color:#4c5967;font-weight:600}
.n{text-align:right;white-space:nowrap}
.cell{font-family:Cell,"Noto Sans Mono","Noto Sans","Noto Sans Arabic","Noto Sans Hebrew",NanumGothic,"Droid Sans Fallback",monospace;font-size:9pt;white-space:pre-wrap;overflow-wrap:anywhere;unicode-bidi:isolate}
.src{color:#2b57c4}.tgt{color:#96490a}.quiet,.slice{color:#4c5967}.slice{padding-left:18px}
.top{display:flex;justify-content:space-between;color:#4c5967;font-size:9pt}
.sum td,.sum th{font-weight:650;border-bottom:1.5pt solid #17202c}
.mark{display:inline-flex;gap:1px;width:23px;height:14px;vertical-align:-2px;margin-right:6px}
.mark i{width:11px;height:13px;border:1.5px dotted #2b57c4;border-radius:3px 0 0 3px}.mark i+i{border-color:#96490a;border-radius:0 3px 3px 0}
.mark .s{background:#2b57c4;border-style:solid}.mark .t{background:#96490a;border-style:solid}
.mark.agreed i{background:#556270;border:1.5px solid #556270}.mark.changed .t{transform:translateY(3px)}
.mark.repeated{filter:drop-shadow(2px 2px 0 #fff) drop-shadow(2px 2px 0 #596572)}
table.groups tr{height:34px}table.groups th,table.groups td{padding-top:0;padding-bottom:0;vertical-align:middle}table.groups .bars{vertical-align:top;padding:0;width:146px}table.groups svg{display:block}
.own{white-space:pre-wrap}.words{display:grid;grid-template-columns:38mm 1fr;gap:2pt 8pt;margin:0 0 8pt}.words dt{font-weight:650}.words dd{margin:0}.things{margin:0 0 6pt;padding-left:14pt;max-width:68ch}.things li{margin:0 0 3pt}.for-whom{font-weight:650}.verdict::first-letter{text-transform:uppercase}.next-page{break-after:page}
.whole{white-space:nowrap}.n+td,.n+th{padding-left:8pt}.close th,.close td{padding-top:2pt;padding-bottom:2pt}.why{max-width:52mm}.overlap svg{display:block}
.warn{background:#fff3cf;padding:4pt 8pt;margin:0 0 4pt}
@media screen and (max-width:640px){body{padding:6px!important}main{padding:16px 14px!important}table{display:block;overflow-x:auto}}
@media screen{body{background:#dfe5ea;padding:20px}main{background:#fff;max-width:760px;margin:0 auto;padding:34px 40px;font-size:13px}}
</style>
