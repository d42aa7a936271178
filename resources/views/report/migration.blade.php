@php
  $n = static fn (int $value): string => number_format($value);
  $at = static fn ($moment): string => $moment->format('j F Y, H:i').' UTC';
@endphp
<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta http-equiv="Content-Security-Policy" content="{{ str_replace("; frame-ancestors 'self'", '', $policy) }}">
<title>Report of the migration: {{ $migration->name }}</title>
@include('report.style', ['foot' => $migration->name])
</head>
<body>
<main>
<div class="top"><span>{{ $migration->name }}</span><span>Report of the migration</span></div>
<h1>{{ $accepted === $tallied && $tallied > 0 ? 'Every dataset is accepted' : "{$n($accepted)} of {$n($tallied)} datasets that were tallied are accepted" }}</h1>
<p>{{ $migration->source_label }} is moved into {{ $migration->target_label }}. {{ $n($right) }} of {{ $n($values) }} values are right ({{ $agreement }}), by the newest tally of each dataset.</p>
@if($dutiesRelaxed !== [])<p class="warn">In this migration {{ implode(', and ', $dutiesRelaxed) }}.</p>@endif
<h2>Dataset by dataset</h2>
<table>
<thead><tr><th scope="col">Dataset</th><th scope="col">Limits</th><th scope="col" class="n">Findings open</th><th scope="col">Signatures</th></tr></thead>
<tbody>
@foreach($lines as $line)
<tr><th scope="row">{{ $line['dataset']->name }}@if($line['tally'] !== null)<br><small class="quiet">tally {{ $line['tally']->number }}, {{ $at($line['tally']->finished_at) }}</small>@endif</th><td>{{ $line['tally'] === null ? 'not tallied' : ucfirst($line['limits']) }}</td><td class="n">{{ $line['tally'] === null ? '' : $n($line['findings']['open']).' of '.$n($line['findings']['findings']) }}</td><td>@if($line['signOff'] === null || $line['signOff']->round === [])<b>{{ $line['state'] === 'none' ? 'nobody has signed' : $line['state'] }}</b>@else @foreach($line['signOff']->round as $signature)<div>{{ $signature->act->value }}: {{ $signature->user->name }}, {{ $at($signature->created_at) }}</div>@endforeach @endif</td></tr>
@endforeach
</tbody>
</table>
@foreach($lines as $line)
@if($line['tally'] !== null)
<h2>{{ $line['headline'] }}</h2>
@if($line['things'] !== [])<ol class="things">@foreach($line['things'] as $thing)<li>{{ $thing }}</li>@endforeach</ol>@else<p>Nothing stands out.</p>@endif
@endif
@endforeach
<p class="quiet">Each dataset has a report of its own with all figures. Evidence packs of this installation are sealed under the key <span class="cell">{{ $sealKey }}</span>.</p>
</main>
</body>
</html>
