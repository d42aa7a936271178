<?php

declare(strict_types=1);

namespace Database\Demo;

/** Where both sides of a dataset live: in a table of the old system, and behind a path of the new register's web service. */
final readonly class DrawnFrom
{
    /**
     * @param  list<string>  $columns  of the table, which has the number of each row besides
     * @param  int  $page  records of a page
     * @param  \Closure(): array{source: DemoRows, target: DemoRows}  $sides
     */
    public function __construct(
        public string $table,
        public string $path,
        private array $columns,
        public int $page,
        public \Closure $sides,
    ) {}

    /** What the old system is asked for. */
    public function query(): string
    {
        return 'SELECT '.implode(', ', $this->columns)." FROM {$this->table} ORDER BY line";
    }
}
