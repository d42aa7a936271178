@php
  use NineTally\Core\Row\Side;
@endphp
<h2>What was compared</h2>
<table>
<thead><tr><th scope="col"></th><th scope="col">Source: {{ $migration->source_label }}</th><th scope="col">Target: {{ $migration->target_label }}</th></tr></thead>
<tbody>
<tr><th scope="row">File</th><td>{{ $tally->sourceDelivery->parts->pluck('file_name')->implode(', ') }}</td><td>{{ $tally->targetDelivery->parts->pluck('file_name')->implode(', ') }}</td></tr>
<tr><th scope="row">Delivered</th><td>no. {{ $tally->sourceDelivery->number }}, {{ $at($tally->sourceDelivery->delivered_at) }} by {{ $tally->sourceDelivery->user->name }}</td><td>no. {{ $tally->targetDelivery->number }}, {{ $at($tally->targetDelivery->delivered_at) }} by {{ $tally->targetDelivery->user->name }}</td></tr>
<tr><th scope="row">SHA-256</th><td class="cell">{{ $tally->sourceDelivery->parts->pluck('digest')->implode(' ') }}</td><td class="cell">{{ $tally->targetDelivery->parts->pluck('digest')->implode(' ') }}</td></tr>
@php($inPlace = array_map(static fn($delivery) => $delivery->parts->first()?->query['inPlace'] ?? null, [$tally->sourceDelivery, $tally->targetDelivery]))
@if(array_filter($inPlace) !== [])
<tr><th scope="row">Drawn in part</th>@foreach($inPlace as $part)<td>@if($part === null) as a whole @else {{ number_format($part['differing']) }} of {{ number_format($part['groups']) }} groups of rows, those that differ. In the others {{ number_format($part['agreed']) }} of {{ number_format($part['rows']) }} rows are equal to the other side's, byte for byte, where they stand; this report does not count them. @endif</td>@endforeach</tr>
@endif
@if($tally->sourceDelivery->claims !== [] || $tally->targetDelivery->claims !== [])
<tr><th scope="row">Figures of the deliverer</th>@foreach([$tally->sourceDelivery, $tally->targetDelivery] as $delivery)<td>@forelse($delivery->claims as $place => $claim)<div data-figure="course/{{ $delivery->side->value }}/claims">{{ $claim['about'] === 'rows' ? 'rows' : 'sum of '.$claim['column'] }}: @if($claim['holds']){{ $claim['claimed'] }}, as {{ $claim['from'] === 'by hand' ? 'was said' : $claim['from'].' says' }}@else{{ $claim['arrived'] }} arrived, {{ $claim['claimed'] }} {{ $claim['from'] === 'by hand' ? 'was said' : 'said '.$claim['from'] }}; @php($explained = $delivery->explanations->where('claim', $place)->last()){{ $explained === null ? 'not explained' : 'explained by '.$explained->user->name.': '.$explained->explanation }}@endif</div>@empty none @endforelse</td>@endforeach</tr>
@endif
<tr><th scope="row">Key</th><td>{{ implode(' + ', $plan->keyNames(Side::Source)) }}</td><td>{{ implode(' + ', $plan->keyNames(Side::Target)) }}</td></tr>
</tbody>
</table>
<p>By plan {{ $tally->planVersion->number }} (SHA-256 <span class="cell">{{ substr($tally->planVersion->digest, 0, 16) }}…</span>), {{ $figure('columns/length', count($plan->columnPairs)) }} column {{ count($plan->columnPairs) === 1 ? 'pair' : 'pairs' }} compared. Tally {{ $tally->number }}@if(($tally->name->name ?? '') !== '') ({{ $tally->name->name }}) @endif was made on {{ $at($tally->finished_at) }} by {{ $tally->user->name }}, who prepared this report, with engine {{ $tally->summary['engine']['engine'] }}.@if($plan->leftOut['source'] !== [] || $plan->leftOut['target'] !== []) Left out by decision: {{ implode(', ', [...$plan->leftOut['source'], ...$plan->leftOut['target']]) }}.@endif @foreach($tally->summary['madeOf']['references'] ?? [] as $reference) {{ $loop->first ? 'Looked up in:' : '' }} {{ $reference['name'] }} delivery {{ $reference['delivery'] }}{{ $loop->last ? '.' : ',' }}@endforeach @foreach($tally->summary['madeOf']['matched'] ?? [] as $matched) {{ $loop->first ? 'Numbers as matched by:' : '' }} {{ $matched['name'] }} tally {{ $matched['tally'] }}{{ $loop->last ? '.' : ',' }}@endforeach @foreach($tally->summary['parameters'] ?? [] as $name => $value) {{ $loop->first ? 'Parameters:' : '' }} {{ $name }} = {{ $value }}{{ $loop->last ? '.' : ',' }}@endforeach</p>

@foreach(['source' => $migration->source_label, 'target' => $migration->target_label] as $side => $label)
@if(($tally->summary['steps'][$side] ?? []) !== [])
<h2>How the rows of {{ $label }} were prepared</h2>
<table>
<thead><tr><th scope="col">Step</th><th scope="col" class="n">Rows in</th><th scope="col" class="n">Made</th><th scope="col" class="n">Left out</th><th scope="col" class="n">Condensed</th><th scope="col" class="n">Rows out</th><th scope="col" class="n">Cells altered</th></tr></thead>
<tbody>
@foreach($tally->summary['steps'][$side] as $step)
@php($told = $plan->side(Side::from($side))->preparation->steps[$step['number'] - 1])
<tr><th scope="row"><span data-sentence="steps">{{ $isPlanMasked ? \NineTally\Core\Preparation\StepCatalogue::make($told)->sentence() : $step['sentence'] }}</span>@if($told['reason'] ?? '') <br><small>{{ $told['reason'] }}@if($told['answersFor'] ?? ''), {{ $told['answersFor'] }}@endif</small>@endif @foreach($step['notes'] ?? [] as $what => $count)<br><small>{{ $figure("steps/{$side}/{$loop->parent->index}/notes", $count) }} {{ $what }}</small>@endforeach</th><td class="n">{{ $figure("steps/{$side}/{$loop->index}/in", $step['in']) }}</td><td class="n">{{ $figure("steps/{$side}/{$loop->index}/made", $step['made']) }}</td><td class="n">{{ $figure("steps/{$side}/{$loop->index}/leftOut", $step['leftOut']) }}</td><td class="n">{{ $figure("steps/{$side}/{$loop->index}/condensed", $step['condensed']) }}</td><td class="n">{{ $figure("steps/{$side}/{$loop->index}/out", $step['out']) }}</td><td class="n">{{ $figure("steps/{$side}/{$loop->index}/altered", $step['altered']) }}</td></tr>
@endforeach
</tbody>
</table>
@endif
@endforeach

@php($altered = array_filter($tally->summary['columns'] ?? [], static fn (array $column): bool => ($column['altered']['source'] ?? 0) + ($column['altered']['target'] ?? 0) > 0))
@if($altered !== [])
<h3>Cells that steps altered before they were compared</h3>
<table>
<thead><tr><th scope="col">Column</th><th scope="col" class="n">Source</th><th scope="col" class="n">Target</th></tr></thead>
<tbody>
@foreach($altered as $column)
<tr><th scope="row">{{ $column['source'] === $column['target'] ? $column['source'] : $column['source'].' → '.$column['target'] }}</th><td class="n">{{ $figure($named('columns', $column['source'], 'altered', 'source'), $column['altered']['source']) }}</td><td class="n">{{ $figure($named('columns', $column['source'], 'altered', 'target'), $column['altered']['target']) }}</td></tr>
@endforeach
</tbody>
</table>
@endif
