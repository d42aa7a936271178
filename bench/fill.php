<?php

declare(strict_types=1);

/*
 * Fills the disk while work of each kind goes on, or before it begins, and makes room again: each is done or says that it failed, what is
 * asked by a page is answered by a sentence, and the same work begun again is done. Run by bin/fill on a small disk of its own.
 */

use Illuminate\Contracts\Console\Kernel;
use Illuminate\Support\Facades\DB;

require dirname(__DIR__).'/vendor/autoload.php';
$application = require dirname(__DIR__).'/bootstrap/app.php';
$application->make(Kernel::class)->bootstrap();

[, $times, $seed, $port] = $argv;
mt_srand((int) $seed);
const SECONDS = 30;
const LEFT = 4096;
/** @var array<string, Closure(): Closure(): ?string> $kinds */
$kinds = require __DIR__.'/kinds-of-work.php';
$filling = storage_path('filling');

function fill(string $file): void
{
    $handle = fopen($file, 'ab') ?: throw new RuntimeException('The disk cannot be filled.');
    foreach ([1 << 22, 1 << 16, 1 << 12, 1] as $bytes) {
        while (disk_free_space(dirname($file)) > LEFT && @fwrite($handle, str_repeat("\0", $bytes)) === $bytes && @fflush($handle)) {
        }
    }
    fclose($handle);
}

/** @return string|null what a page is answered that it should not be */
function asked(string $port): ?string
{
    foreach (['GET' => 'session', 'POST' => 'session'] as $method => $path) {
        $body = @file_get_contents(
            "http://127.0.0.1:{$port}/api/v1/{$path}",
            false,
            stream_context_create([
                'http' => [
                    'method' => $method,
                    'ignore_errors' => true,
                    'timeout' => 20,
                    'header' => "Accept: application/json\r\nContent-Type: application/json",
                    'content' => $method === 'POST' ? '{"email": "analyst@wherrymoor.example", "password": "x"}' : '',
                ],
            ]),
        );
        $status = (int) substr($http_response_header[0] ?? '', 9, 3);
        if ($body === false || ! in_array($status, [200, 419, 422, 429, 503, 507], true) || json_decode($body) === null) {
            return "{$method} {$path} was answered {$status}: ".substr((string) $body, 0, 200);
        }
    }

    return null;
}

/** @param Closure(): ?string $state */
function waited(Closure $state, int $seconds): ?string
{
    $began = microtime(true);
    do {
        usleep(200_000);
        try {
            $end = $state();
        } catch (Throwable) {
            try {
                DB::reconnect();
            } catch (Throwable) {
            }
            $end = null;
        }
    } while ($end === null && microtime(true) - $began < $seconds);

    return $end;
}

$wrong = 0;
$ends = [];
for ($time = 1; $time <= (int) $times; $time++) {
    $kind = array_keys($kinds)[$time % count($kinds)];
    $isFullBefore = mt_rand(0, 2) === 0;
    $isFullBefore && fill($filling);
    try {
        $state = $kinds[$kind]();
    } catch (Throwable $said) {
        $text = "said at once: {$said->getMessage()}";
        $state = static fn(): string => $text;
    }
    usleep(mt_rand(0, 1_500_000));
    $isFullBefore || fill($filling);
    $page = asked($port);
    $whileFull = waited($state, mt_rand(1, SECONDS));
    unlink($filling);
    $end = $whileFull ?? waited($state, SECONDS);
    try {
        $again = waited($kinds[$kind](), 3 * SECONDS);
    } catch (Throwable $failed) {
        $again = $failed->getMessage();
    }
    $isRight = $page === null && $end !== null && ! str_starts_with($end, 'WRONG') && $again === 'done';
    $wrong += $isRight ? 0 : 1;
    $verdict = $end === null ? 'STUCK' : strtok($end, ':');
    $ends[$kind][$verdict] = ($ends[$kind][$verdict] ?? 0) + 1;
    printf(
        "%d %s, full %s: %s%s%s\n",
        $time,
        $kind,
        $isFullBefore ? 'before' : 'meanwhile',
        $end ?? 'STUCK',
        $again === 'done' ? '' : '; AGAIN: '.($again ?? 'STUCK'),
        $page === null ? '' : "; PAGE: {$page}"
    );
}
printEnds($ends);
printf("%d wrong\n", $wrong);
exit($wrong === 0 ? 0 : 1);
