<?php

declare(strict_types=1);

/*
 * What control totals add to a tally, in time and in memory: distinct values, of which each row has its own; sums by group; and the same
 * over delivered rows, with a step on each side. Beside them stands what reading both sides once takes: as blocks, in which no cell has
 * been found, and as rows with their cells. Each is run in a process of its own, so that its memory is its own.
 *
 *     php bench/totals.php FOLDER ROWS
 */

use NineTally\Core\Intake\ReaderCatalogue;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Preparation\NoReferences;
use NineTally\Core\Preparation\PartStack;
use NineTally\Core\Preparation\PreparedReader;
use NineTally\Core\Preparation\PreparedSide;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\TallyRun;
use NineTally\Core\Tally\TallySettings;
use NineTally\Core\Tally\Workspace;
use NineTally\Tests\GivenDeliveries;

require dirname(__DIR__).'/vendor/autoload.php';

[$folder, $rows, $kind] = [$argv[1] ?? exit("Give a folder and a number of rows.\n"), (int) ($argv[2] ?? 1_000_000), $argv[3] ?? null];
$paths = ['source' => "{$folder}/totals-source.csv", 'target' => "{$folder}/totals-target.csv"];
$same = static fn(string $name): array => ['source' => $name, 'target' => $name];
$sums = [['measure' => 'sum', ...$same('fee'), 'by' => [$same('basin')]], ['measure' => 'rows', 'by' => [$same('basin')]]];
$three = [...$sums, ['measure' => 'sum', ...$same('paid'), 'by' => [$same('basin')]]];
$delivered = array_map(static fn(array $total): array => [...$total, 'over' => 'delivered'], $sums);
$steps = [['id' => 'a', 'kind' => 'leave-out-rows', 'condition' => ['column' => 'basin', 'test' => 'is', 'value' => 'KB']]];
$kinds = [
    'both sides read, as blocks' => [[], []],
    'both sides read, as rows with their cells' => [[], []],
    'no totals' => [[], []],
    'two sums and a count by group' => [$three, []],
    'distinct values, each row its own' => [[['measure' => 'distinct', ...$same('boat')]], []],
    'a sum and a count by group' => [$sums, []],
    'no totals, a step on each side' => [[], $steps],
    'a sum and a count by group, a step on each side' => [$sums, $steps],
    'the same over delivered rows' => [$delivered, $steps],
];
if ($kind === null) {
    foreach ($paths as $side => $path) {
        $file = fopen($path, 'wb') ?: exit("The folder cannot be written to.\n");
        fwrite($file, "basin,berth,boat,fee,length,opened,holder,note,state,year,paid,mark\n");
        for ($row = 1; $row <= $rows; $row++) {
            // 7,919 is no divisor of what anybody would ask for: the sides are in different orders.
            $number = $side === 'source' ? $row : $row * 7_919 % $rows + 1;
            $further = [$number % 30 .'.2', '2024-01-0'.$number % 9 + 1, "Holder {$number}", 'in order', 'open', 2000 + $number % 20];
            $cells = [['KB', 'LM', 'NQ', 'OT'][$number % 4], $number, "Slow Heron {$number}", $number % 9_000 .'.50', ...$further];
            fwrite($file, implode(',', [...$cells, $number % 700 .'.25', "x{$number}"])."\n");
        }
        fclose($file);
    }
    foreach (array_keys($kinds) as $name) {
        passthru(implode(' ', array_map(escapeshellarg(...), [PHP_BINARY, __FILE__, $folder, (string) $rows, $name])));
    }
    array_map(unlink(...), $paths);
    exit;
}
[$totals, $preparation] = $kinds[$kind];
$side = $preparation === [] ? [] : ['preparation' => $preparation];
$plan = Plan::fromJson(
    CanonicalJson::of([
        'formatVersion' => Plan::FORMAT_VERSION,
        'key' => [$same('berth')],
        'columnPairs' => [
            ['id' => 'pair-000000000001', ...$same('fee'), 'kind' => 'number'],
            ['id' => 'pair-000000000002', ...$same('boat')],
            ['id' => 'pair-000000000003', ...$same('basin')],
        ],
        ...$side === [] ? [] : ['sides' => ['source' => $side, 'target' => $side]],
        ...$totals === [] ? [] : ['totals' => $totals],
    ]),
);
$work = Workspace::make($folder);
$line = "%-50s %6.2f s  peak %4.0f MB\n";
$files = Sides::each(static fn(Side $side) => (new ReaderCatalogue)->open($paths[$side->value], basename($paths[$side->value])));
$stacks = $files->map(static fn($reader): PartStack => new PartStack([['reader' => $reader, 'label' => '']]));
$readers = $preparation === [] ? $files : Sides::each(static function (Side $side) use ($plan, $stacks, $work): PreparedReader {
    @mkdir("{$work->path}/prepared-{$side->value}");
    $prepared = PreparedSide::in("{$work->path}/prepared-{$side->value}");
    $prepared->make($stacks->of($side), $plan->side($side)->preparation, $side->value, static fn() => null, new NoReferences);

    return new PreparedReader($prepared, $side->value);
});
if (str_starts_with($kind, 'both sides read')) {
    $began = microtime(true);
    foreach ($files->both() as $reader) {
        foreach (str_ends_with($kind, 'blocks') ? $reader->batches() : $reader->records() as $read) {
            unset($read);
        }
    }
    printf($line, $kind, microtime(true) - $began, memory_get_peak_usage(true) / 1e6);
    $work->remove();
    exit;
}
$began = microtime(true);
$run = new TallyRun($plan, $readers, $work->path, settings: new TallySettings(256 << 20), delivered: new GivenDeliveries($stacks));
foreach ($run->findings() as $finding) {
    unset($finding);
}
printf($line, $kind, microtime(true) - $began, memory_get_peak_usage(true) / 1e6);
$work->remove();
