<?php

declare(strict_types=1);

/*
 * Two tables of one in a thousand rows that differ: both asked first and what differs drawn, and, where "whole" is said, both drawn as a
 * whole; each until it is tallied. Run by bin/bench-in-place.
 */

use App\Actions\Deliver\AskForSnapshot;
use App\Actions\Deliver\DeliveryTerms;
use App\Actions\Deliver\TakeDelivery;
use App\Actions\Match\DraftOf;
use App\Actions\Match\SaveDraft;
use App\Actions\Sources\DrawDataset;
use App\Models\Draw;
use App\Models\Migration;
use App\Models\ReceiptState;
use App\Models\User;
use Illuminate\Contracts\Console\Kernel;
use NineTally\Core\Row\Side;

require dirname(__DIR__).'/vendor/autoload.php';
$application = require dirname(__DIR__).'/bootstrap/app.php';
$application->make(Kernel::class)->bootstrap();

$person = User::query()->firstOrCreate(['email' => 'bench@wherrymoor.example'], ['name' => 'Bench', 'password' => 'none']);
$migration = Migration::query()->firstOrCreate(
    ['name' => 'Wherrymoor cutover'],
    ['source_label' => 'Old register', 'target_label' => 'New register'],
);
$migration->memberships()->firstOrCreate(['user_id' => $person->id], ['role' => 'analyst']);
$dataset = $migration->datasets()->create(['name' => 'Berths '.date('His')]);
$tables = ['source' => 'old_berths', 'target' => 'new_berths'];
foreach (Side::cases() as $side) {
    // A few rows to make a plan by; what is drawn again is all of them.
    $query = ['source' => 'Old system', 'sql' => "SELECT * FROM {$tables[$side->value]} WHERE berth_no <= 100"];
    $receipt = app(AskForSnapshot::class)($dataset, $side, $query, $person);
    while ($receipt->refresh()->state === ReceiptState::Receiving) {
        usleep(100_000);
    }
    $receipt->update(['query' => ['sql' => "SELECT * FROM {$tables[$side->value]}"] + $query]);
    app(TakeDelivery::class)($dataset, $side, [$receipt->id], new DeliveryTerms);
    while ($dataset->latestDelivery($side) === null) {
        usleep(100_000);
    }
}
$same = static fn(string $name): array => ['source' => $name, 'target' => $name];
$columns = ['basin', 'holder', 'fee', 'since', 'note', 'active', 'month', 'seal', 'first', 'second', 'last'];
app(DraftOf::class)($dataset);
app(SaveDraft::class)(
    $dataset,
    [
        'formatVersion' => 3,
        'key' => [$same('berth_no')],
        'columnPairs' => array_map(
            static fn(string $name, int $nth): array => ['id' => sprintf('pair-%012x', $nth)] + $same($name),
            $columns,
            array_keys($columns),
        ),
        'leftOut' => ['source' => [], 'target' => []],
    ],
    $person,
);

foreach (($argv[1] ?? '') === 'whole' ? [true, false] : [true] as $inPlace) {
    $began = microtime(true);
    $draw = app(DrawDataset::class)($dataset, $person, inPlace: $inPlace);
    while (in_array(Draw::query()->findOrFail($draw->id)->state->value, ['asking', 'drawing', 'reading', 'waiting', 'tallying'], true)) {
        usleep(250_000);
    }
    printf("%s: %.1f s\n", $inPlace ? 'where the rows stand' : 'drawn as a whole', microtime(true) - $began);
    foreach (Draw::query()->findOrFail($draw->id)->log as ['at' => $at, 'said' => $said]) {
        printf("  %5d s  %s\n", strtotime($at) - (int) $began, $said);
    }
}
