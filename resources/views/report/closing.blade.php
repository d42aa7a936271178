@php
  use NineTally\Core\Row\Side;
@endphp
@if($corrections !== [])
<h2>What has to be corrected</h2>
<table>
<thead><tr><th scope="col">Ticket</th><th scope="col">What</th><th scope="col" class="n">Findings</th><th scope="col" style="width:42%">Why, and who said so</th></tr></thead>
<tbody>
@foreach(array_slice($corrections, 0, $mostLines) as $entry)<tr><th scope="row">{{ $entry['act']->ticket ?? 'none' }}</th><td data-sentence="rulings">{{ $entry['about'] }}</td><td class="n" data-figure="rulings">{{ $n($entry['standing']) }}</td><td data-ordinal>{{ $shorten($entry['act']->reason) }} <span class="quiet">({{ $entry['act']->user->name }})</span></td></tr>
@endforeach
</tbody>
</table>
@if(count($corrections) > $mostLines)<p class="quiet">The first of them; the page <b>Defects</b> and the file of rulings hold all.</p>@endif
@endif
@isset($texts['closing'])<h2>Remarks</h2><p class="own" data-ordinal>{{ $texts['closing']->text }}</p><p class="quiet">{{ $texts['closing']->user->name }}, {{ $at($texts['closing']->created_at) }}</p>@endisset
<h2>The plan in words</h2>
<table>
<thead><tr><th scope="col">Column</th><th scope="col">Compared as</th></tr></thead>
<tbody>
@foreach($inWords->key() as $column)<tr><th scope="row">{{ $column['name'] }} <span class="quiet">(key)</span></th><td data-ordinal>{{ $column['rule'] }}</td></tr>
@endforeach
@foreach(array_slice($inWords->pairs(), 0, $mostLines) as $pair)<tr><th scope="row">{{ $pair['name'] }}</th><td data-ordinal>{{ $pair['rule'] }}</td></tr>
@endforeach
</tbody>
</table>
@if(count($inWords->pairs()) > $mostLines)<p class="quiet">The first of them; the plan as JSON has all.</p>@endif
@foreach([Side::Source, Side::Target] as $side)@if($inWords->forms($side) !== [])<p data-ordinal>How the {{ $side->value }} writes: {{ implode('; ', $inWords->forms($side)) }}.</p>@endif @endforeach
<h2>People and times</h2>
<table>
<thead><tr><th scope="col">Who</th><th scope="col">What</th><th scope="col">When, or last</th></tr></thead>
<tbody>
@foreach($people as $one)<tr><th scope="row">{{ $one['who'] }}</th><td data-ordinal>{{ $one['what'] }}</td><td>{{ $at($one['at']) }}</td></tr>
@endforeach
@foreach($eyeChecks as $check)@foreach($check['people'] as $person)<tr><th scope="row">{{ $person['name'] }}</th><td data-ordinal>looked at {{ $n($person['said']) }} rows of a sample</td><td></td></tr>@endforeach
@endforeach
</tbody>
</table>
<h2>Made with</h2>
<table><tbody>
@foreach(['engine' => 'Engine', 'causes' => 'Catalogue of causes', 'icu' => 'Unicode (ICU)', 'timeZones' => 'Time zones'] as $of => $words)<tr><th scope="row">{{ $words }}</th><td data-ordinal>{{ $tally->summary['engine'][$of] ?? 'not told' }}</td></tr>@endforeach
</tbody></table>
<h2>Words</h2>
<dl class="words">
@foreach([
  'Agreed' => 'a row that both sides have, with every compared cell identical or let pass by a rule',
  'Changed' => 'a row that both sides have, with at least one compared cell that differs',
  'Missing, extra' => 'a row that only the source has, or only the target',
  'Repeated' => 'rows that share their key, and were not all compared',
  'Unkeyed' => 'a row whose key cells are all blank',
  'Refused' => 'a record that could not be read as a row',
  'Left out' => 'a row that a step of the plan took away, with its reason',
  'Values right' => 'cells that are identical or let pass, of all cells with a value on either side',
  'Lost, added' => 'a value that only the source has, or only the target',
  'Finding' => 'a row or a cell that needs an explanation',
  'Expected, defect, asked' => 'what people decided: as it should be; wrong in the target; waiting for an answer',
  'Limit, waiver' => 'the worst value that is acceptable; that the data owner takes a worse one, until a day',
] as $word => $meaning)<dt>{{ $word }}</dt><dd>{{ $meaning }}</dd>@endforeach
</dl>
