<?php

declare(strict_types=1);

namespace App\Adapters\Sources\InPlace;

/**
 * Groups of one side, in their order, from the file that they were written down in.
 *
 * @phpstan-type Group array{rows: int, odd: bool, sums: string}
 *
 * @implements \IteratorAggregate<int, Group>
 */
final readonly class GroupStream implements \IteratorAggregate
{
    public function __construct(private string $path) {}

    /** @return \Generator<int, Group> by number */
    public function getIterator(): \Generator
    {
        $file = fopen($this->path, 'rb');
        while ($file !== false && ($line = fgets($file)) !== false) {
            /** @var array{bucket: string, row_count: string, odd: string, one: string, two: string} $told */
            $told = json_decode($line, true, 2, JSON_THROW_ON_ERROR);
            yield (int) $told['bucket'] => [
                'rows' => (int) $told['row_count'],
                'odd' => $told['odd'] !== '0',
                'sums' => "{$told['one']} {$told['two']}",
            ];
        }
    }
}
