<?php

declare(strict_types=1);

/*
 * Reads damaged files, one after the other, and says what became of them: fuzz.php READER FIRST LAST SEED FOLDER. A line for each that is
 * neither read nor refused in words within its time and memory; whoever called learns from FOLDER/at which one was read last. bin/fuzz
 * goes on behind one that ended the process.
 */

use NineTally\Core\Intake\ReaderCatalogue;
use NineTally\Core\NineTallyException;
use NineTally\Core\Preparation\PartStack;
use NineTally\Core\Profile\SideProfile;
use NineTally\Tests\Pathological\Mutations;

require dirname(__DIR__, 3).'/vendor/autoload.php';

[, $reader, $first, $last, $seed, $folder] = $argv;
const SECONDS = 10;
const BYTES = 256 * 1024 * 1024;
ini_set('memory_limit', '512M');
// Whatever PHP warns of, and the engine does not expect, is a defect: it would reach somebody.
set_error_handler(static fn(int $level, string $message, string $file, int $line): bool => (error_reporting() & $level) === 0
    ? true
    : throw new ErrorException($message, 0, $level, $file, $line));
pcntl_async_signals(true);
pcntl_signal(SIGALRM, static fn() => throw new RuntimeException('took too long'));

$mutations = new Mutations($folder, (int) $seed);
$ends = ['read' => 0, 'refused' => 0, 'failed' => 0];
$slowest = $most = 0.0;
for ($number = (int) $first; $number <= (int) $last; $number++) {
    file_put_contents("{$folder}/at", (string) $number);
    $path = "{$folder}/{$number}.{$reader}";
    file_put_contents($path, $mutations->file($reader, $number));
    memory_reset_peak_usage();
    $began = microtime(true);
    pcntl_alarm(SECONDS);
    $problem = null;
    try {
        $opened = (new ReaderCatalogue)->open($path, basename($path));
        $stack = new PartStack([['reader' => $opened, 'label' => 'a']], null);
        json_encode(SideProfile::ofRecords($stack->columns, $stack->records())->toArray(), JSON_THROW_ON_ERROR);
        $ends['read']++;
    } catch (NineTallyException $refusal) {
        $ends['refused']++;
        $problem = str_contains($refusal->getMessage(), basename($path)) ? null : "refused without its name: {$refusal->getMessage()}";
    } catch (Throwable $failure) {
        $ends['failed']++;
        $problem = $failure::class.': '.$failure->getMessage().' at '.basename($failure->getFile()).':'.$failure->getLine();
    }
    pcntl_alarm(0);
    unlink($path);
    $slowest = max($slowest, microtime(true) - $began);
    $most = max($most, memory_get_peak_usage());
    $problem ??= memory_get_peak_usage() > BYTES ? sprintf('took %d MB', memory_get_peak_usage() / 1048576) : null;
    if ($problem !== null) {
        printf("%s %d: %s\n", $reader, $number, mb_substr(mb_scrub($problem), 0, 300));
    }
}
printf(
    "= %s %d to %d: read %d, refused %d, failed %d, slowest %.1f s, most %d MB\n",
    $reader,
    $first,
    $last,
    ...[...array_values($ends), $slowest, $most / 1048576],
);
