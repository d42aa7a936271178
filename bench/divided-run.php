<?php

declare(strict_types=1);

/*
 * A tally of which every row has findings and nothing is forgiven, in the application with its workers, against the same at the command
 * line: times, attempts, and how long each phase took. Run by bin/bench-run.
 */

use App\Actions\Deliver\AnnouncePart;
use App\Actions\Deliver\DeliveryTerms;
use App\Actions\Deliver\EnterDelivery;
use App\Actions\Deliver\LookAtReceipt;
use App\Actions\Deliver\ReceiveChunk;
use App\Actions\Match\DraftOf;
use App\Actions\Match\SaveDraft;
use App\Actions\Tally\StartRun;
use App\Models\Dataset;
use App\Models\Migration;
use App\Models\Run;
use App\Models\User;
use Illuminate\Contracts\Console\Kernel;
use NineTally\Core\Row\Side;

require dirname(__DIR__).'/vendor/autoload.php';
require __DIR__.'/Registers.php';
$application = require dirname(__DIR__).'/bootstrap/app.php';
$application->make(Kernel::class)->bootstrap();

[, $rows, $shape] = $argv;
$registers = new Registers((int) $rows, $shape);
$paths = $registers->write(storage_path('work').'/registers');
$names = explode(',', trim((string) fgets(fopen($paths['source'], 'rb'))));
$same = static fn(string $name): array => ['source' => $name, 'target' => $name];
$plan = [
    'formatVersion' => 3,
    'key' => [$same('basin'), $same('berth')],
    'columnPairs' => array_map(static fn(string $name, int $nth): array => [
        'id' => sprintf('pair-%012x', $nth),
        'source' => $name,
        'target' => $registers->map()[$name] ?? $name,
    ], array_slice($names, 2), array_keys(array_slice($names, 2))),
    ...$shape === 'hard' ? ['sides' => ['target' => ['dateForms' => ['dd/MM/yyyy']]]] : [],
];

function delivered(Dataset $dataset, Side $side, string $path, User $person): void
{
    $receipt = app(AnnouncePart::class)($dataset, $side, basename($path), (int) filesize($path), $person);
    $file = fopen($path, 'rb');
    while (($chunk = (string) stream_get_contents($file, 4 << 20)) !== '') {
        $receipt = app(ReceiveChunk::class)->write($receipt, $receipt->received_bytes, $chunk);
    }
    app(LookAtReceipt::class)($receipt);
    $receipt->update(['state' => 'reading']);
    app(EnterDelivery::class)([$receipt->refresh()], new DeliveryTerms);
}

/** @return array<string, float> seconds by phase, and of the whole */
function measured(Run $run): array
{
    $seconds = [];
    $began = microtime(true);
    do {
        usleep(50_000);
        $run->refresh();
        $phase = $run->phase->value ?? 'queued';
        $seconds[$phase] = ($seconds[$phase] ?? 0.0) + microtime(true) - ($at ?? $began);
        $at = microtime(true);
    } while (! $run->state->isOver());

    return [...$seconds, 'all' => microtime(true) - $began];
}

$person = User::query()->firstOrCreate(
    ['email' => 'bench@wherrymoor.example'],
    ['name' => 'Bench', 'password' => bin2hex(random_bytes(12))],
);
$migration = Migration::query()->firstOrCreate(
    ['name' => 'Wherrymoor cutover'],
    ['source_label' => 'Old register', 'target_label' => 'New register'],
);
$dataset = $migration->datasets()->firstOrCreate(['name' => "{$shape} {$rows}"]);
foreach (Side::cases() as $side) {
    $dataset->latestDelivery($side) ?? delivered($dataset, $side, $paths[$side->value], $person);
}
app(DraftOf::class)($dataset);
app(SaveDraft::class)($dataset, $plan, $person);
// What a delivery is looked at for by itself is over first.
while (Illuminate\Support\Facades\DB::table('jobs')->exists()) {
    usleep(200_000);
}
$run = app(StartRun::class)($dataset, $person);
foreach (measured($run) as $phase => $seconds) {
    printf("  %-10s %7.1f s\n", $phase, $seconds);
}
printf("in the application: %s, attempts %d, findings %s\n", $run->state->value, $run->attempts, json_encode($run->tally_id));

$file = storage_path('work').'/bench-plan.json';
file_put_contents($file, json_encode($plan, JSON_THROW_ON_ERROR));
$out = storage_path('work').'/bench-out';
foreach ([1, 2] as $round) {
    (new Illuminate\Filesystem\Filesystem)->deleteDirectory($out);
    $began = microtime(true);
    passthru(
        sprintf(
            '%s/core/bin/nine-tally tally %s %s --plan=%s --out=%s --workers=2 >/dev/null',
            dirname(__DIR__),
            escapeshellarg($paths['source']),
            escapeshellarg($paths['target']),
            escapeshellarg($file),
            escapeshellarg($out),
        ),
        $code,
    );
    printf("at the command line: %.1f s (exit %d)\n", microtime(true) - $began, $code);
}
