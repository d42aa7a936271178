@php
  use NineTally\Core\Row\Side;
@endphp
<h2>Every row accounted for</h2>
<p class="overlap">{!! $overlap !!}</p>
<table>
<thead><tr><th scope="col">Rows</th><th scope="col" class="n">Source</th><th scope="col" class="n">Target</th></tr></thead>
<tbody>
<tr><th scope="row">Records read</th><td class="n">{{ $figure('rows/source/read', $source['read']) }}</td><td class="n">{{ $figure('rows/target/read', $target['read']) }}</td></tr>
<tr><th scope="row">Refused, could not be read as rows</th><td class="n">{{ $figure('rows/source/refused', $source['refused']) }}</td><td class="n">{{ $figure('rows/target/refused', $target['refused']) }}</td></tr>
@if(($tally->summary['steps']['source'] ?? []) !== [] || ($tally->summary['steps']['target'] ?? []) !== [])
<tr><th scope="row">Delivered</th><td class="n">{{ $figure('rows/source/delivered', $source['delivered']) }}</td><td class="n">{{ $figure('rows/target/delivered', $target['delivered']) }}</td></tr>
<tr><th scope="row">Left out by a step</th><td class="n">{{ $figure('rows/source/left_out', $source['left_out']) }}</td><td class="n">{{ $figure('rows/target/left_out', $target['left_out']) }}</td></tr>
<tr><th scope="row">Made by a step</th><td class="n">{{ $figure('rows/source/made', $source['made']) }}</td><td class="n">{{ $figure('rows/target/made', $target['made']) }}</td></tr>
<tr><th scope="row">Condensed by a step</th><td class="n">{{ $figure('rows/source/condensed', $source['condensed']) }}</td><td class="n">{{ $figure('rows/target/condensed', $target['condensed']) }}</td></tr>
@endif
<tr class="sum"><th scope="row">{{ ($tally->summary['steps']['source'] ?? []) === [] && ($tally->summary['steps']['target'] ?? []) === [] ? 'Delivered and compared' : 'Prepared and compared' }}</th><td class="n">{{ $figure('rows/source/prepared', $source['prepared']) }}</td><td class="n">{{ $figure('rows/target/prepared', $target['prepared']) }}</td></tr>
<tr><th scope="row"><span class="mark agreed"><i></i><i></i></span>Agreed</th><td class="n">{{ $figure('rows/source/agreed', $source['agreed']) }}</td><td class="n">{{ $figure('rows/target/agreed', $target['agreed']) }}</td></tr>
<tr><th scope="row"><span class="mark changed"><i class="s"></i><i class="t"></i></span>Changed</th><td class="n">{{ $figure('rows/source/changed', $source['changed']) }}</td><td class="n">{{ $figure('rows/target/changed', $target['changed']) }}</td></tr>
<tr><th scope="row"><span class="mark"><i class="s"></i><i></i></span>Missing from the target</th><td class="n">{{ $figure('rows/source/missing', $source['missing']) }}</td><td></td></tr>
<tr><th scope="row"><span class="mark"><i></i><i class="t"></i></span>Extra in the target</th><td></td><td class="n">{{ $figure('rows/target/extra', $target['extra']) }}</td></tr>
<tr><th scope="row"><span class="mark repeated"><i class="s"></i><i class="t"></i></span>Repeated key, not compared</th><td class="n">{{ $figure('rows/source/repeated', $source['repeated']) }}</td><td class="n">{{ $figure('rows/target/repeated', $target['repeated']) }}</td></tr>
@foreach(['set_aside' => 'set aside', 'not_kept' => 'not kept beside another row of their key'] as $how => $words)
@if(array_sum(array_column($tally->summary['repeats'] ?? [], $how)) > 0)
<tr><td class="slice">{{ $words }}</td>@foreach(['source', 'target'] as $side)<td class="n quiet">{{ $figure("keys/{$side}/{$how}", $tally->summary['repeats'][$side][$how] ?? 0) }}</td>@endforeach</tr>
@endif
@endforeach
@if(array_sum(array_column($tally->summary['repeats'] ?? [], 'kept')) > 0)
<tr><td class="slice">compared above, as the one row of its key that is kept</td>@foreach(['source', 'target'] as $side)<td class="n quiet">{{ $figure("keys/{$side}/kept", $tally->summary['repeats'][$side]['kept'] ?? 0) }}</td>@endforeach</tr>
@endif
<tr><th scope="row">Without a key</th><td class="n">{{ $figure('rows/source/unkeyed', $source['unkeyed']) }}</td><td class="n">{{ $figure('rows/target/unkeyed', $target['unkeyed']) }}</td></tr>
<tr class="sum"><th scope="row">Unaccounted</th><td class="n">{{ $figure('none', $source['prepared'] - $source['agreed'] - $source['changed'] - $source['missing'] - $source['repeated'] - $source['unkeyed']) }}</td><td class="n">{{ $figure('none', $target['prepared'] - $target['agreed'] - $target['changed'] - $target['extra'] - $target['repeated'] - $target['unkeyed']) }}</td></tr>
</tbody>
</table>

@if($parts !== [])
<h3>By part</h3>
<table>
<thead><tr><th scope="col">Part</th><th scope="col" class="n">Refused</th><th scope="col" class="n">Delivered</th><th scope="col" class="n">Changed</th><th scope="col" class="n">Missing or extra</th><th scope="col" class="n">Repeated</th><th scope="col" class="n">Without a key</th></tr></thead>
<tbody>
@foreach($parts as $part)
@php($of = "course/{$part['side']->value}/parts/".($part['number'] - 1))
<tr><th scope="row"><span class="{{ $part['side'] === Side::Source ? 'src' : 'tgt' }}">{{ $part['side']->value }}</span> {{ $part['label'] }}</th><td class="n">{{ $figure("{$of}/refused", $part['refused']) }}</td><td class="n">{{ $figure("{$of}/delivered", $part['delivered']) }}</td>@foreach(['changed', $part['side'] === Side::Source ? 'missing' : 'extra', 'repeated', 'unkeyed'] as $class)<td class="n">@if(isset($part['rows'][$class])){{ $figure($named('parts', $class, $part['side']->value, $part['number']), $part['rows'][$class]) }}@else{{ $figure('none', 0) }}@endif</td>@endforeach</tr>
@endforeach
</tbody>
</table>
<p class="quiet">A changed row is counted in its part of the source.</p>
@endif

@if(($source['repeated'] + $target['repeated'] + array_sum(array_column($tally->summary['repeats'] ?? [], 'kept'))) > 0)
<h3>Rows that share a key</h3>
@foreach([Side::Source, Side::Target] as $side)<p>{{ ucfirst($side->value) }}: {{ $inWords->repeats($side) }}.</p>@endforeach
@endif

@if($inWords->bridges() > 0)
<h3>Bridges</h3>
<p>The plan has <span data-ordinal>{{ $n($inWords->bridges()) }}</span> {{ $inWords->bridges() === 1 ? 'bridge: a key of the source and another of the target that mean' : 'bridges: keys of the source and others of the target that mean' }} the same.@foreach($bridged as $class => $count) {{ $loop->first ? 'Of the rows that they join' : ',' }} {{ $figure($named('bridged', $class), $count) }} {{ $count === 1 ? 'is' : 'are' }} {{ $class }}{{ $loop->last ? '.' : '' }}@endforeach @if($bridged === []) Every row that they join agrees. @endif</p>
@endif
