<?php

declare(strict_types=1);

/*
 * How long it takes to write down where the keys of a side stand, and then to find rows by them.
 *
 *     php bench/key-places.php FOLDER ROWS
 */

use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Intake\ReaderCatalogue;
use NineTally\Core\Matching\KeyForm;
use NineTally\Core\Matching\KeyOffsetIndex;
use NineTally\Core\Value\Reading;

require dirname(__DIR__).'/vendor/autoload.php';

[$folder, $rows] = [$argv[1] ?? exit("Give a folder and a number of rows.\n"), (int) ($argv[2] ?? 1_000_000)];
$path = "{$folder}/key-places.csv";
$file = fopen($path, 'wb') ?: exit("The folder cannot be written to.\n");
fwrite($file, "basin,berth,holder,fee,note\n");
for ($row = 1; $row <= $rows; $row++) {
    fwrite(
        $file,
        ['KB', 'LM', 'NQ', 'OT'][$row % 4].
            ",{$row},Ezekiel Thornøy {$row},".
            $row % 9_000 .
            ".50,quay wall weeps; look again in spring\n",
    );
}
fclose($file);
$reader = (new ReaderCatalogue)->open($path, 'key-places.csv');
$form = new KeyForm([new Reading, new Reading], [[], []], (new CauseCatalogue)->forms);
$began = microtime(true);
KeyOffsetIndex::write($reader, [0, 1], $form, "{$folder}/places", $folder);
printf(
    "%s rows, %.0f MB: written in %.1f s, %.0f MB; peak %.0f MB\n",
    number_format($rows),
    filesize($path) / 1e6,
    microtime(true) - $began,
    filesize("{$folder}/places") / 1e6,
    memory_get_peak_usage(true) / 1e6,
);
mt_srand(7);
$times = [];
for ($time = 0; $time < 200; $time++) {
    $row = mt_rand(1, $rows);
    $began = microtime(true);
    $found = KeyOffsetIndex::at("{$folder}/places", $reader, [0, 1], $form)?->row([['KB', 'LM', 'NQ', 'OT'][$row % 4], (string) $row]);
    $times[] = (microtime(true) - $began) * 1000;
    $found?->line === $row + 1 || exit("Row {$row} was not found.\n");
}
sort($times);
printf("found by key, median %.1f ms, 95th percentile %.1f ms\n", $times[100], $times[190]);
array_map(unlink(...), [$path, "{$folder}/places", "{$folder}/places.ranges"]);
