<?php

declare(strict_types=1);

/*
 * Policies tried on all rows that share the key: how long it takes to take these rows aside, and to try each policy on them. A third of the
 * source stands twice, a third of these with another fee.
 *
 *     php -d opcache.enable_cli=1 -d opcache.jit=tracing -d opcache.jit_buffer_size=64M bench/policies.php ROWS
 */

use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Intake\Delimited\DelimitedReader;
use NineTally\Core\Plan\KeyColumn;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Repeats\PolicyId;
use NineTally\Core\Repeats\RepeatsPolicy;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\Trial\PolicyTrial;
use NineTally\Core\Tally\Trial\RepeatedKeyRows;
use NineTally\Core\Tally\Workspace;
use NineTally\Core\Value\Kind;

require dirname(__DIR__).'/vendor/autoload.php';

$rows = (int) ($argv[1] ?? 600_000);
$workspace = Workspace::make();
$paths = ['source' => "{$workspace->path}/old.csv", 'target' => "{$workspace->path}/new.csv"];
$row = static fn(int $number, int $fee, string $loaded): string => sprintf(
    "%s,%07d,Holder %d,%d.50,2027-%02d-%02d,%s\n",
    ['KB', 'LM', 'NQ', 'OT', 'SB', 'HW'][$number % 6],
    $number,
    $number * 7 % 9_973,
    $fee,
    $number % 12 + 1,
    $number % 28 + 1,
    $loaded,
);
$files = array_map(static fn(string $path): SplFileObject => new SplFileObject($path, 'w'), $paths);
foreach ($files as $file) {
    $file->fwrite("basin,berth,holder,fee,paid_until,loaded_at\n");
}
foreach ([[1, '2026-10-04'], [3, '2026-10-05']] as [$every, $loaded]) {
    for ($number = 0; $number < $rows; $number += $every) {
        $fee = 100 + $number % 900 + ($every === 3 && $number % 9 === 0 ? 1 : 0);
        $files['source']->fwrite($row($number, $fee, $loaded));
        if ($every === 1 && $number % 1_000 > 0) {
            $files['target']->fwrite($row($number, $fee + ($number % 9 === 0 ? 1 : 0), $loaded));
        }
    }
}
unset($files, $file);

$names = ['holder', 'fee', 'paid_until'];
$plan = new Plan(
    [new KeyColumn('basin', 'basin'), new KeyColumn('berth', 'berth')],
    array_map(static fn(string $name): ColumnPair => ColumnPair::between($name, $name), $names),
);
$forms = (new CauseCatalogue)->forms;
$readers = new Sides(DelimitedReader::detecting($paths['source'], 'old.csv'), DelimitedReader::detecting($paths['target'], 'new.csv'));
$began = microtime(true);
[$aside, $keys] = (new RepeatedKeyRows($plan, $readers, $workspace->path, $forms))->found(static fn(int $bytes) => null);
printf(
    "%s rows, %s against %s that share %s keys, taken aside in %.1f s\n",
    number_format($rows * 4 / 3),
    number_format($aside->source->rows()),
    number_format($aside->target->rows()),
    number_format($keys),
    microtime(true) - $began,
);
$trial = new PolicyTrial($plan, $aside, $workspace->path, $forms);
foreach ([
    RepeatsPolicy::setAside(), RepeatsPolicy::of(PolicyId::KeepFirst), RepeatsPolicy::of(PolicyId::CollapseCopies),
    RepeatsPolicy::byColumn(PolicyId::KeepHighest, 'loaded_at', Kind::Date),
] as $policy) {
    $began = microtime(true);
    $tried = $trial->of(new Sides($policy, RepeatsPolicy::setAside()));
    printf(
        "%-16s %5.1f s, %s agree, %s differ\n",
        $policy->id->value,
        microtime(true) - $began,
        number_format($tried->summary->source->agreed),
        number_format($tried->summary->source->changed),
    );
}
printf("%d MB\n", (int) (memory_get_peak_usage(true) / 1_048_576));
$workspace->remove();
