<?php

declare(strict_types=1);

/*
 * What control totals add to a tally, in time and in memory: distinct values, of which each row has its own; sums by group; and the same
 * over delivered rows, with a step on each side. Each is run in a process of its own, so that its memory is its own.
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
$delivered = array_map(static fn(array $total): array => [...$total, 'over' => 'delivered'], $sums);
$steps = [['id' => 'a', 'kind' => 'leave-out-rows', 'condition' => ['column' => 'basin', 'test' => 'is', 'value' => 'KB']]];
$kinds = [
    'no totals' => [[], []],
    'distinct values, each row its own' => [[['measure' => 'distinct', ...$same('boat')]], []],
    'a sum and a count by group' => [$sums, []],
    'no totals, a step on each side' => [[], $steps],
    'a sum and a count by group, a step on each side' => [$sums, $steps],
    'the same over delivered rows' => [$delivered, $steps],
];
if ($kind === null) {
    foreach ($paths as $side => $path) {
        $file = fopen($path, 'wb') ?: exit("The folder cannot be written to.\n");
        fwrite($file, "basin,berth,boat,fee\n");
        for ($row = 1; $row <= $rows; $row++) {
            // 7,919 is no divisor of what anybody would ask for: the sides are in different orders.
            $number = $side === 'source' ? $row : $row * 7_919 % $rows + 1;
            fwrite($file, ['KB', 'LM', 'NQ', 'OT'][$number % 4].",{$number},Slow Heron {$number},".$number % 9_000 .".50\n");
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
$files = Sides::each(static fn(Side $side) => (new ReaderCatalogue)->open($paths[$side->value], basename($paths[$side->value])));
$stacks = $files->map(static fn($reader): PartStack => new PartStack([['reader' => $reader, 'label' => '']]));
$readers = $preparation === [] ? $files : Sides::each(static function (Side $side) use ($plan, $stacks, $work): PreparedReader {
    @mkdir("{$work->path}/prepared-{$side->value}");
    $prepared = PreparedSide::in("{$work->path}/prepared-{$side->value}");
    $prepared->make($stacks->of($side), $plan->side($side)->preparation, $side->value, static fn() => null, new NoReferences);

    return new PreparedReader($prepared, $side->value);
});
$began = microtime(true);
$run = new TallyRun($plan, $readers, $work->path, settings: new TallySettings(256 << 20), delivered: new GivenDeliveries($stacks));
foreach ($run->findings() as $finding) {
    unset($finding);
}
printf("%-50s %6.1f s  peak %4.0f MB\n", $kind, microtime(true) - $began, memory_get_peak_usage(true) / 1e6);
$work->remove();
