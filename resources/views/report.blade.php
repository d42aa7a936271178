@php
  use NineTally\Core\Row\Side;
  $n = static fn (int $value): string => number_format($value);
  // A figure carries its name in the page, so that it can be held against what was computed.
  $figure = static fn (string $name, int|string $value): \Illuminate\Support\HtmlString => new \Illuminate\Support\HtmlString(sprintf('<span data-figure="%s">%s</span>', e($name), e(is_int($value) ? number_format($value) : $value)));
  $rowsName = static fn (\NineTally\Core\Comparison\RowClass $class): string => match ($class->value) {
      'missing', 'changed' => 'rows/source/'.$class->value,
      'extra' => 'rows/target/extra',
      default => "rows/source/{$class->value} + rows/target/{$class->value}",
  };
  $named = static fn (string|int ...$path): string => implode('/', array_map(static fn (string|int $one): string => rawurlencode((string) $one), $path));
  $sliceName = static fn (array $of): string => match (true) {
      isset($of['reason']) => $named('reasons', $of['class'], $of['reason']),
      isset($of['bridged']) => $named('bridged', $of['class']),
      isset($of['part']) => $named('parts', $of['class'], $of['side'], $of['part']),
      default => $named('rows', $of['side'], $of['class']),
  };
  $amount = \App\Queries\Prove\TotalWords::amount(...);
  $source = $rows['source'];
  $target = $rows['target'];
  $at = static fn ($moment): string => $moment->format('j F Y, H:i').' UTC';
@endphp
<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta http-equiv="Content-Security-Policy" content="{{ str_replace("; frame-ancestors 'self'", '', $policy) }}">
<title>Reconciliation report: {{ $tally->dataset->name }}, tally {{ $tally->number }}</title>
@include('report.style', ['foot' => "{$migration->name} · {$tally->dataset->name}, tally {$tally->number}"])
</head>
<body>
<main>
<div class="top"><span>{{ $migration->name }}</span><span>Reconciliation report, {{ $tally->dataset->name }}, tally {{ $tally->number }}</span></div>
<h1>@if($verdict !== null)<span data-figure="sign-off/headline">{{ $verdict }}</span> @elseif($findings === 0)Every row of {{ $tally->dataset->name }} agrees @elseif($open === 0)Every difference in {{ $tally->dataset->name }} is ruled on @else{{ $figure('tally/openFindings', $open) }} of {{ $figure('tally/findings', $findings) }} findings in {{ $tally->dataset->name }} are still open @endif</h1>
<p>{{ $migration->source_label }} handed over {{ $figure('rows/source/delivered', $source['delivered']) }} rows, {{ $migration->target_label }} {{ $figure('rows/target/delivered', $target['delivered']) }}. {{ $figure('rows/source/agreed', $source['agreed']) }} rows agree in every compared cell; {{ $figure('rows/source/changed', $source['changed']) }} met their counterpart and differ in at least one cell; {{ $figure('rows/source/missing', $source['missing']) }} are missing from the target and {{ $figure('rows/target/extra', $target['extra']) }} stand in the target only. {{ $figure('rows_arrived', $tally->summary['figures']['rowsArrived']) }} of the source rows arrived. @if(isset($tally->summary['values'])) {{ $figure('values/right', $tally->summary['values']['right']) }} of {{ $figure('values/values', $tally->summary['values']['values']) }} values are right ({{ $figure('values/agreement', $tally->summary['figures']['cellsAgreeingOverall']) }}); {{ $figure('values/differing', $tally->summary['values']['differing']) }} differ, {{ $figure('values/lost', $tally->summary['values']['lost']) }} are lost and {{ $figure('values/added', $tally->summary['values']['added']) }} are added. @else {{ $figure('values/agreement', $tally->summary['figures']['cellsAgreeingOverall']) }} of all values are right. @endif Of the values that arrived {{ $figure('right_of_arrived', $tally->summary['figures']['cellsAgreeing']) }} are right.</p>
@if($tally->purged !== null)<p class="warn">The content of this tally was purged by {{ $tally->purged->purge->user->name }} on {{ $at($tally->purged->purge->created_at) }}: {{ $tally->purged->purge->reason }} Figures, rulings and signatures are as they were; findings, examples and groups are gone.</p>@endif
@foreach($warnings as $warning)<p class="warn" data-sentence="warnings">{{ $warning }}</p>@endforeach

@include('report.first-page')
<div class="next-page"></div>
@if(count($limits) > $limitsOnFirstPage)
<h2>The other limits</h2>
<table class="close"><tbody>
@foreach(array_slice($limits, $limitsOnFirstPage) as $limit)<tr><th scope="row" data-figure="sign-off/limits">{{ ucfirst($limit['held']->limit->sentence($limit['scope'])) }}@if($limit['held']->isInherited) <span class="quiet">(of the migration)</span>@endif</th><td class="n" data-figure="sign-off/limits">{{ $limit['held']->value() }}</td><td>{{ $limit['held']->state->fails() ? ($limit['waiver'] === null ? 'does not hold' : 'waived') : 'holds' }}</td></tr>
@endforeach
</tbody></table>
@endif

@include('report.compared')

@include('report.rows')

@if($totals !== [])
<h2>What adds up</h2>
<table>
<thead><tr><th scope="col">Total</th><th scope="col" class="n">{{ $migration->source_label }}</th><th scope="col" class="n">{{ $migration->target_label }}</th><th scope="col" class="n">Difference</th></tr></thead>
<tbody>
@foreach($totals as ['total' => $total])
@php($name = 'totals/'.($total['number'] - 1))
<tr><th scope="row">{{ $total['heading'] }}{{ $total['by'] === '' ? '' : " by {$total['by']}" }}, over {{ $total['basis'] }}</th>
@if($total['isMasked'])<td colspan="3" class="quiet">of sensitive values, which are masked</td>
@else<td class="n">{{ $figure($name, $amount($total['source'])) }}</td><td class="n">{{ $figure($name, $amount($total['target'])) }}</td><td class="n">{{ $total['difference'] === null ? '' : $figure($name, $amount($total['difference'], true)) }}</td>@endif</tr>
@foreach($total['shares'] as $share)<tr><td class="slice" colspan="3">{{ $figure($name, $share['rows']) }} {{ $share['rows'] === 1 ? 'row' : 'rows' }}{{ $share['filter']['pattern'] ?? null ? ':' : '' }} <span data-sentence="totals">{{ $share['words'] }}</span></td><td class="n quiet">{{ $figure($name, $amount($share['net'], true)) }}</td></tr>
@endforeach
@endforeach
</tbody>
</table>
<p class="quiet">What a total differs by is made up of the rows below it, exactly.</p>
@foreach($totals as ['total' => $total, 'groups' => $groups, 'picture' => $picture])
@if($groups !== [] && ($total['differs'] || $total['cancelling'] > 0))
<h3>{{ $total['heading'] }} by {{ $total['by'] }}@if($total['groups'] > count($groups)): those of {{ $figure($named('totals', $total['number'] - 1, 'groups', 'length'), $total['groups']) }} groups that differ most @endif</h3>
<table class="groups">
<thead><tr><th scope="col">{{ $total['by'] }}</th><th scope="col">source above target</th><th scope="col" class="n">{{ $migration->source_label }}</th><th scope="col" class="n">{{ $migration->target_label }}</th><th scope="col" class="n">Difference</th></tr></thead>
<tbody>
@foreach($groups as $place => $group)
@php($name = "totals/".($total['number'] - 1)."/groups/{$place}")
<tr><th scope="row" class="cell">{{ $shorten(implode(' · ', array_map(static fn (string $label): string => $label === '' ? '(blank)' : $label, $group['labels']))) }}</th>@if($place === 0)<td rowspan="{{ count($groups) }}" class="bars">{!! $picture !!}</td>@endif<td class="n">{{ $figure($name, $amount($group['source'])) }}</td><td class="n">{{ $figure($name, $amount($group['target'])) }}</td><td class="n">{{ $figure($name, $amount($group['difference'], true)) }}{{ $group['cancels'] ? ' ±' : '' }}</td></tr>
@endforeach
</tbody>
</table>
@if($total['cancelling'] > 0)<p class="quiet">±: the total agrees, and differences cancel out.</p>@endif
@endif
@endforeach
@endif

@if($worth !== [])
<h2>What the differences come to</h2>
<table>
<thead><tr><th scope="col">Column</th><th scope="col" class="n">Upwards</th><th scope="col" class="n">in cells</th><th scope="col" class="n">Downwards</th><th scope="col" class="n">in cells</th><th scope="col" class="n">Nought in cells</th><th scope="col" class="n">Net</th><th scope="col" class="n">Largest</th></tr></thead>
<tbody>
@foreach($worth as $place => $column)
@php($name = "worth/{$place}/worth")
@php($of = $column['worth'])
<tr><th scope="row">{{ $column['source'] }}</th><td class="n">{{ $figure($name, $amount($of['up']['sum'], true)) }}</td><td class="n">{{ $figure($name, $of['up']['cells']) }}</td><td class="n">{{ $figure($name, $amount($of['down']['sum'], true)) }}</td><td class="n">{{ $figure($name, $of['down']['cells']) }}</td><td class="n">{{ $figure($name, $of['nought']) }}</td><td class="n">{{ $figure($name, $amount($of['net'], true)) }}</td><td class="n">{{ $figure($name, $amount($of['largest'], true)) }}</td></tr>
@endforeach
</tbody>
</table>
<p class="quiet">The target less the source, of cells of numbers that differ; a side without a value has nothing.</p>
@endif

@if($records !== [])
<h2>What must have a record elsewhere</h2>
<table>
<thead><tr><th scope="col">Column, and where its records are</th><th scope="col" class="n">Rows</th><th scope="col" class="n">No value</th><th scope="col" class="n">With a record</th><th scope="col" class="n">Without one</th><th scope="col" class="n">Values without</th><th scope="col" class="n">Records that nothing refers to</th></tr></thead>
<tbody>
@foreach($records as $check)
@php($name = 'records/'.($check['number'] - 1))
@foreach(['source' => $migration->source_label, 'target' => $migration->target_label] as $side => $label)
<tr><th scope="row">{{ $check['name'] }} in {{ $check['rule']['in'] }}, {{ $label }}@if($check['deliveries'][$side] !== null), delivery {{ $check['deliveries'][$side] }}@endif</th>
@if($check[$side]['problem'] !== null)<td colspan="6">{{ $check[$side]['problem'] }}</td>
@else @foreach(['rows', 'blank', 'found', 'without', 'valuesWithout', 'unreferenced'] as $what)<td class="n">{{ $figure("{$name}/{$side}/{$what}", $check[$side][$what]) }}</td>@endforeach @endif</tr>
@endforeach
@foreach(['lost' => 'lost in the move: the source has their record', 'own' => 'that the source never had', 'untold' => 'of which nobody can say whether the source had their record', 'inherited' => 'inherited: the source has no record of them either'] as $kind => $words)
@if($check['kinds'][$kind]['values'] > 0)<tr><td class="slice" colspan="4">values {{ $words }}</td><td class="n quiet">{{ $figure("{$name}/kinds/{$kind}/rows", $check['kinds'][$kind]['rows']) }}</td><td class="n quiet">{{ $figure("{$name}/kinds/{$kind}/values", $check['kinds'][$kind]['values']) }}</td><td></td></tr>@endif
@endforeach
@endforeach
</tbody>
</table>
@endif

@if($eyeChecks !== [])
<h2>Looked at by eye</h2>
@foreach($eyeChecks as $place => $check)
@php($name = "eye-checks/items/{$place}")
<p>Rows that agree, drawn by {{ $check['by'] }}, {{ $check['at'] }}, under the seed <span class="cell" data-ordinal>{{ $check['seed'] }}</span>; looked at by @foreach($check['people'] as $person){{ $loop->first ? '' : ', ' }}{{ $person['name'] }} ({{ $figure("{$name}/people", $person['said']) }})@endforeach.</p>
<table>
<thead><tr><th scope="col">Rows</th><th scope="col" class="n">Of</th><th scope="col" class="n">Drawn</th><th scope="col" class="n">Right</th><th scope="col" class="n">Wrong</th><th scope="col" class="n">Unclear</th></tr></thead>
<tbody>
@foreach(['identical' => 'identical on both sides', 'byRule' => 'that agree only for a rule'] as $stratum => $words)
@php($of = $check['strata'][$stratum])
@if($of['rows'] > 0)
<tr><th scope="row">{{ $words }}</th>@foreach(['population', 'rows', 'right', 'wrong', 'unclear'] as $what)<td class="n">{{ $figure("{$name}/strata/{$stratum}/{$what}", $of[$what]) }}</td>@endforeach</tr>
<tr><td class="slice" colspan="6">{{ $figure("{$name}/strata/{$stratum}", $of['words']) }}</td></tr>
@endif
@endforeach
</tbody>
</table>
@endforeach
@if($notDrawn > 0)<p>{{ $figure('eye-checks/notDrawn', $notDrawn) }} rows that agree are never drawn, for no key leads to them alone: it stands more than once, or a bridge joins two.</p>@endif
@endif

@if(isset($tally->summary['values']) && $tally->figuresByColumn() !== [])
<h2>How far the values agree</h2>
<table>
<thead><tr><th scope="col">Column</th><th scope="col" class="n">Agreement</th><th scope="col" class="n">Values</th><th scope="col" class="n">Right</th><th scope="col" class="n">Differing</th><th scope="col" class="n">Lost</th><th scope="col" class="n">Added</th><th scope="col" class="n">Blank on both</th></tr></thead>
<tbody>
@foreach($tally->figuresByColumn() as $column)<tr><th scope="row">{{ $column['source'] === $column['target'] ? $column['source'] : $column['source'].' → '.$column['target'] }}</th><td class="n">{{ $figure($named('columns', $column['source'], 'values', 'agreement'), $column['values']['agreement']) }}</td>@foreach(['values', 'right', 'differing', 'lost', 'added', 'blank_on_both'] as $count)<td class="n">{{ $figure($named('columns', $column['source'], 'values', $count), $column['values'][$count]) }}</td>@endforeach</tr>
@endforeach
<tr class="sum"><th scope="row">All</th><td class="n">{{ $figure('values/agreement', $tally->summary['values']['agreement']) }}</td>@foreach(['values', 'right', 'differing', 'lost', 'added', 'blank_on_both'] as $count)<td class="n">{{ $figure('values/'.$count, $tally->summary['values'][$count]) }}</td>@endforeach</tr>
</tbody>
</table>
<p class="quiet">Right: identical, or forgiven by a rule of the plan. Lost: blank in the target, or gone with a row that was not compared. Added: blank in the source, or come with such a row. Cells that are blank on both sides are in no percentage.</p>
@endif

@if($tally->forgiven() !== [])
<h2>Forgiven by a rule of the plan</h2>
<table>
<thead><tr><th scope="col">Where and why</th><th scope="col" class="n">Cells</th></tr></thead>
<tbody>
@foreach($tally->forgiven() as $pass)<tr><th scope="row">{{ $pass['source'] }}{{ $pass['inKey'] ? ', in the key' : '' }}: <span data-sentence="patterns">{{ $pass['sentence'] }}</span></th><td class="n">{{ $figure($named($pass['inKey'] ? 'key_forgiven' : 'patterns', $pass['source'], $pass['sentence'], 'cells'), $pass['cells']) }}</td></tr>
@endforeach
</tbody>
</table>
@endif

@if($classes !== [] || $patterns !== [])
<h2>What differs, and why</h2>
<table>
<thead><tr><th scope="col">Where and why</th><th scope="col" class="n">Findings</th><th scope="col">Rulings</th></tr></thead>
<tbody>
@foreach($classes as $class)<tr><th scope="row">Rows: {{ $class['class']->sentence() }}</th><td class="n">{{ $figure($rowsName($class['class']), $class['count']) }}</td><td data-figure="tally/classes">{{ $class['rulings'] }}</td></tr>
@foreach($class['slices'] as $slice)<tr><td class="slice" data-sentence="tally/rowLists">{{ $slice['words'] }}</td><td class="n quiet">{{ $figure($sliceName($slice['filter']), $slice['rows']) }}</td><td></td></tr>
@endforeach
@endforeach
@foreach(array_slice($patterns, 0, $mostLines) as $entry)<tr><th scope="row">{{ $entry['pattern']->source_column }}: <span data-sentence="patterns">{{ $entry['sentence'] }}</span></th><td class="n">{{ $figure($named('patterns', $entry['pattern']->source_column, $entry['sentence'], 'cells'), $entry['pattern']->cells) }}</td><td data-figure="tally/patterns">{{ $entry['rulings'] }}</td></tr>
@endforeach
</tbody>
</table>
@if(count($patterns) > $mostLines)<p class="quiet">The largest of them; the findings as CSV hold all.</p>@endif

@if($acts !== [])
<h2>Rulings that stand</h2>
<table>
<thead><tr><th scope="col">Decision</th><th scope="col">About</th><th scope="col" class="n">Findings</th><th scope="col" style="width:48%">Why, and by whom</th></tr></thead>
<tbody>
@foreach(array_slice($acts, 0, $mostLines) as $entry)<tr><td>{{ $entry['act']->decision?->value }}</td><td data-sentence="rulings">{{ $entry['about'] }}</td><td class="n" data-figure="rulings">{{ $n($entry['standing']) }}</td><td>{{ $shorten($entry['act']->reason) }}@if((string) $entry['act']->ticket !== '') <span class="whole">(<span data-ordinal>{{ $entry['act']->ticket }}</span>)</span>@endif<br><small>{{ $entry['act']->user->name }}, {{ $at($entry['act']->created_at) }}@if($entry['act']->asked !== null), asked {{ $entry['act']->asked->name }}@endif, in tally {{ $entry['tally'] }}</small></td></tr>
@endforeach
</tbody>
</table>
@if(count($acts) > $mostLines)<p class="quiet">The first of them, the newest first; the file of rulings in an evidence pack holds all.</p>@endif
@endif

<h2>The first findings of each</h2>
@foreach($patterns as $entry)@if(count($entry['findings']) > 0)
<h3>{{ $entry['pattern']->source_column }}: <span data-sentence="patterns">{{ $entry['sentence'] }}</span> ({{ $figure($named('patterns', $entry['pattern']->source_column, $entry['sentence'], 'cells'), $entry['pattern']->cells) }})</h3>
<table>
<thead><tr><th scope="col" style="width:24%">{{ implode(', ', $plan->keyNames(Side::Source)) }}</th><th scope="col">Source</th><th scope="col">Target</th><th scope="col" style="width:12%">Ruling</th></tr></thead>
<tbody>
@foreach($entry['findings'] as $cell)<tr><td class="cell">{{ $shorten((string) $cell->key?->asCsv()) }}</td><td class="cell src">{{ $shorten($cell->finding->source) }}</td><td class="cell tgt">{{ $shorten($cell->finding->target) }}</td><td>{{ $cell->standing->decision->value }}</td></tr>
@endforeach
</tbody>
</table>
@endif @endforeach
@foreach($classes as $class)
<h3>Rows: {{ $class['class']->sentence() }} ({{ $figure($rowsName($class['class']), $class['count']) }})</h3>
<table>
<thead><tr><th scope="col" style="width:24%">{{ implode(', ', $plan->keyNames(Side::Source)) }}</th><th scope="col">The row begins with</th><th scope="col" style="width:12%">Ruling</th></tr></thead>
<tbody>
@foreach($class['findings'] as $row)<tr><td class="cell">{{ $row->finding->deliveredKey === null ? $row->finding->side?->value.' line '.$row->finding->placeOn($row->finding->side ?? Side::Source)?->line : $shorten($row->finding->deliveredKey->asCsv()) }}</td><td class="cell {{ $row->finding->side === Side::Source ? 'src' : 'tgt' }}">@foreach($begins($row->finding) as $cell)<bdi>{{ $cell }}</bdi>{{ $loop->last ? '' : ($row->finding->refused === null ? '   ' : ' ') }}@endforeach</td><td>{{ $row->standing->decision->value }}</td></tr>
@endforeach
</tbody>
</table>
@endforeach
<p class="quiet">Of each kind at most <span data-ordinal>{{ config('nine-tally.report_findings') }}</span> findings are printed; the CSV of findings that goes with this report holds all of them.</p>
@endif
@include('report.closing')
<p class="quiet">Prepared by {{ $tally->user->name }}.</p>
</main>
</body>
</html>
