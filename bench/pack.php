<?php

declare(strict_types=1);

/*
 * What an evidence pack of many gigabytes takes, in time and in memory: to be made, and to be checked to the file. Its payload is one file
 * of random bytes, which nothing can pack smaller.
 *
 *     php bench/pack.php FOLDER GIGABYTES
 */

use NineTally\Core\Seal\BagWriter;
use NineTally\Core\Seal\PackCheck;
use NineTally\Core\Seal\Seal;
use NineTally\Core\Seal\SealKey;

require dirname(__DIR__).'/vendor/autoload.php';

[$folder, $gigabytes] = [$argv[1] ?? exit("Give a folder and a number of gigabytes.\n"), (int) ($argv[2] ?? 10)];
is_dir($folder) || mkdir($folder, 0700, true);
$payload = "{$folder}/payload.bin";
$file = fopen($payload, 'wb') ?: exit("The folder cannot be written to.\n");
$block = random_bytes(1_048_576);
for ($number = 0; $number < $gigabytes * 1_024; $number++) {
    fwrite($file, pack('J', $number).substr($block, 8));
}
fclose($file);
$key = SealKey::ofSeed(random_bytes(32));
$measured = static function (string $what, callable $work) use ($gigabytes): void {
    $began = hrtime(true);
    $work();
    printf(
        "%s: %.1f s, %.0f MB/s, %.0f MB of memory\n",
        $what,
        $seconds = (hrtime(true) - $began) / 1e9,
        $gigabytes * 1_024 / $seconds,
        memory_get_peak_usage(true) / 1_048_576,
    );
};
$measured('read once, for its SHA-256 alone', static fn() => hash_file('sha256', $payload));
$measured('made', static function () use ($folder, $payload, $key): void {
    $bag = BagWriter::at("{$folder}/pack.zip", 'evidence');
    $bag->file('tally/source.bin', $payload);
    $bag->finish(['Bagging-Date' => date('Y-m-d')], [], $key, static fn(string $digest): Seal => Seal::over(
        $digest,
        null,
        null,
        'a bench',
        new DateTimeImmutable,
        $key,
    ));
});
unlink($payload);
$measured('checked', static function () use ($folder, $key): void {
    $checked = PackCheck::of("{$folder}/pack.zip", $key->fingerprint());
    echo $checked->fits() ? '' : "The pack does not fit.\n";
});
printf("pack of %s bytes\n", number_format((int) filesize("{$folder}/pack.zip")));
unlink("{$folder}/pack.zip");
