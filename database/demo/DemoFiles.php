<?php

declare(strict_types=1);

namespace Database\Demo;

/** How the files of both sides are written. */
final readonly class DemoFiles
{
    /** The column that says which office a row came from. */
    public const PART_LABEL = 'office';

    /**
     * @param  non-empty-string  $sourceDelimiter
     * @param  non-empty-string  $targetDelimiter
     * @param  non-empty-string  $sourceLineEnd
     * @param  array<string, string>  $parts  file of the source => the office that handed it over; none: the source is one file
     * @param  string|null  $totalled  the column whose sum the last record of each part says, behind the number of its rows
     */
    public function __construct(
        public string $sourceDelimiter = ',',
        public string $targetDelimiter = ',',
        public string $sourceLineEnd = "\n",
        public string $targetBeginning = '',
        public array $parts = [],
        public ?string $totalled = null,
    ) {}
}
