<?php

declare(strict_types=1);

namespace Database\Demo;

/** What the generator needs to know of one dataset. */
final readonly class DemoDataset
{
    /**
     * @param  list<string>  $key  source names
     * @param  array<string, string>  $columns  source name => target name; '' where the target has none
     * @param  list<string>  $targetOnly
     * @param  \Closure(int): array<string, string>  $row  the true row with a number, by source name
     * @param  list<Planted>  $planted
     * @param  array{missing: int, extra: int, repeatedInSource: int, repeatedInTarget: int, repeatedInBoth: int, repeatedInSourceOnly: int, unkeyedInSource: int, unkeyedInTarget: int}  $rowsPlanted
     * @param  list<string>  $refusedInSource  raw records, which are no rows
     * @param  list<string>  $refusedInTarget
     */
    public function __construct(
        public string $name,
        public int $rows,
        public array $key,
        public array $columns,
        public array $targetOnly,
        public \Closure $row,
        public array $planted,
        public array $rowsPlanted,
        public array $refusedInSource,
        public array $refusedInTarget,
        public string $sourceDelimiter = ',',
        public string $targetDelimiter = ',',
        public string $sourceLineEnd = "\n",
        public string $targetBeginning = '',
    ) {}
}
