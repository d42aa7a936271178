<?php

declare(strict_types=1);

namespace App\Adapters\Runs;

use NineTally\Core\Matching\Spill\AtomicFile;
use NineTally\Core\Tally\Summary;

/** What merging left: the figures of the tally, and the files of its findings. */
final readonly class MergedRun
{
    /**
     * @param  array<string, int>  $rowsByClass
     * @param  array<string, list<string>>  $files  names by kind: rows, cells, places
     */
    public function __construct(public Summary $summary, public array $rowsByClass, public array $files) {}

    public function keep(string $folder): void
    {
        AtomicFile::put(self::path($folder), serialize($this));
    }

    public static function digestIn(string $folder): string
    {
        return (string) @hash_file('sha256', self::path($folder));
    }

    /** @param string $digest as it was written down; from bytes that are other ones nothing is made */
    public static function in(string $folder, string $digest): self
    {
        $bytes = (string) @file_get_contents(self::path($folder));
        $merged = hash('sha256', $bytes) === $digest ? unserialize($bytes) : null;

        return $merged instanceof self ? $merged : throw new \RuntimeException('A working file of the run is damaged or gone.');
    }

    private static function path(string $folder): string
    {
        return "{$folder}/merged";
    }
}
