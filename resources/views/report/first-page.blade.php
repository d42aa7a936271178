@php($last = $signOff->round === [] ? null : $signOff->round[count($signOff->round) - 1])
@if($verdict !== null)<p class="for-whom">{{ match (true) {
  $signOff->state->value === 'accepted' => "Accepted by {$last->user->name}, {$last->role->label()}, on {$at($last->created_at)}.",
  $signOff->state->value === 'overtaken' => 'Nobody accepts this any more: a newer tally is being signed.',
  $signOff->next() !== null => sprintf('It waits to be %s by %s %s.', $signOff->next()->value, $signOff->next()->value === 'prepared' ? 'an' : 'a', $signOff->next()->role()->label()),
  default => '',
} }}</p>@endif
@isset($texts['opening'])<p class="own" data-ordinal>{{ $texts['opening']->text }}</p><p class="quiet">{{ $texts['opening']->user->name }}, {{ $at($texts['opening']->created_at) }}</p>@endisset
@if($things !== [])
<h2>What to know</h2>
<ol class="things">@foreach($things as $thing)<li data-figure="sign-off/things">{{ $thing }}</li>@endforeach</ol>
@endif
@if($limits !== [])
<h2>Limits</h2>
<p class="verdict"><span data-figure="sign-off/verdict">{{ $limitsInWords }}</span>.@if(count($limits) > $limitsOnFirstPage) Those that fail or are waived come first; the others stand on the next page.@endif</p>
<table class="close">
<thead><tr><th scope="col">The worst that is acceptable</th><th scope="col" class="n">It is</th><th scope="col">Does it hold?</th></tr></thead>
<tbody>
@foreach(array_slice($limits, 0, $limitsOnFirstPage) as $limit)
<tr><th scope="row" data-figure="sign-off/limits">{{ ucfirst($limit['held']->limit->sentence($limit['scope'])) }}@if($limit['held']->isInherited) <span class="quiet">(of the migration)</span>@endif</th><td class="{{ $limit['held']->state->value === 'no-figure' ? 'why' : 'n' }}" data-figure="sign-off/limits">{{ $limit['held']->value() }}</td><td>@if($limit['held']->state->value === 'holds')yes @elseif($limit['waiver'] !== null)<b>no, waived</b> by {{ $limit['waiver']->user->name }} until <span data-ordinal>{{ $limit['waiver']->ends_on->format('j F Y') }}</span> @elseif($limit['held']->state->value === 'no-figure')<b>no figure, so no</b> @else<b>no</b> @endif</td></tr>
@endforeach
</tbody>
</table>
@foreach($exceptions as $exception)<p class="quiet" data-figure="sign-off/exceptions">{{ ucfirst($exception['words']) }}; in the migration {{ $exception['instead'] }}.</p>@endforeach
@endif
@if($signOff->acts !== [])
<h2>Signatures</h2>
<table>
<thead><tr><th scope="col">Who</th><th scope="col">What</th><th scope="col">When</th></tr></thead>
<tbody>
@foreach($signOff->acts as $act)
<tr><th scope="row">{{ $act->user->name }}<br><small class="quiet">{{ $act->role->label() }}</small></th><td>@if($act->digest === null)<b>{{ $act->act->value }}</b>: {{ $act->reason }}@else<span data-figure="sign-off/signatures">{{ $act->words }}</span><br><small class="quiet">@if(! in_array($act, $signOff->round, true))taken back later; @endif by {{ $act->method }}, on <span class="cell" data-ordinal>{{ $act->digest }}</span></small>@endif</td><td>{{ $at($act->created_at) }}</td></tr>
@endforeach
</tbody>
</table>
<p class="quiet">Electronic signatures by whoever was signed in and gave their password again (and a code, where it says so); they are no qualified signatures. Each is on a document whose SHA-256 stands with it. Evidence packs of this installation are sealed under the key <span class="cell" data-ordinal>{{ $sealKey }}</span>.</p>
@endif
@if($dutiesRelaxed !== [] || $tookTwo !== [])
<p class="warn">In this migration {{ implode(', and ', $dutiesRelaxed) }}.@foreach($tookTwo as $name) {{ $name }} gave more than one signature here.@endforeach</p>
@endif
<h2>What this is about</h2>
@foreach(['source' => $migration->source_label, 'target' => $migration->target_label] as $side => $label)
@php($of = $population[$side])
@php($name = "population/sides/{$side}")
<p>{{ $label }}: {{ $figure("{$name}/delivered", $of['delivered']) }} rows delivered, {{ $figure("{$name}/prepared", $of['prepared']) }} prepared, {{ $figure("{$name}/compared", $of['compared']) }} compared, in {{ $figure("{$name}/counts/compared + {$name}/counts/key", $of['counts']['compared'] + $of['counts']['key']) }} of {{ $figure("{$name}/columns/length", count($of['columns'])) }} columns, the key among them: {{ $figure("{$name}/share", $of['share']) }} of its cells.</p>
@endforeach
