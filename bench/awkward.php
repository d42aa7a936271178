<?php

declare(strict_types=1);

/*
 * Awkward files, made here with their truth, and how each is read without a correction: right, said to be doubtful, or wrong in silence.
 *
 *     php bench/awkward.php [FOLDER]
 */

use NineTally\Core\Intake\ReaderCatalogue;
use NineTally\Core\Row\Row;
use NineTally\Tests\AwkwardFiles;

require dirname(__DIR__).'/vendor/autoload.php';

$folder = $argv[1] ?? sys_get_temp_dir().'/nine-tally-awkward';
is_dir($folder) || mkdir($folder, 0700, true);
$byKind = [];
$reader = new ReaderCatalogue;
foreach (AwkwardFiles::in($folder) as $file) {
    try {
        $found = $reader->find($file->path, basename($file->path));
        $opened = $reader->openAs($file->path, basename($file->path), $found->format);
        $rows = [];
        foreach ($opened->records() as $record) {
            $rows[] = $record instanceof Row ? $record->cells : null;
        }
        $problem = $file->complaint($opened->columns()->names, $rows);
        // A record that is refused is listed with its line and why, and stands against a signature.
        $isDoubtful = $problem !== null && (isset($found->reasons['doubt']) || in_array(null, $rows, true));
    } catch (Throwable $refused) {
        [$problem, $isDoubtful] = [$refused->getMessage(), true];
    }
    $verdict = $problem === null ? 'right' : ($isDoubtful ? 'said so' : 'wrong in silence');
    $byKind[$file->kind][$verdict] = ($byKind[$file->kind][$verdict] ?? 0) + 1;
    if ($problem !== null) {
        printf("%-44s %s: %s\n", basename($file->path), $verdict, $problem);
    }
}
$all = [];
printf("\n%-28s %6s %8s %17s\n", 'kind', 'right', 'said so', 'wrong in silence');
foreach ($byKind as $kind => $verdicts) {
    printf(
        "%-28s %6d %8d %17d\n",
        $kind,
        ...array_map(static fn(string $of): int => $verdicts[$of] ?? 0, ['right', 'said so', 'wrong in silence']),
    );
    foreach ($verdicts as $verdict => $count) {
        $all[$verdict] = ($all[$verdict] ?? 0) + $count;
    }
}
printf("%-28s %6d %8d %17d\n", 'all', ...array_map(static fn(string $of): int => $all[$of] ?? 0, ['right', 'said so', 'wrong in silence']));
