<?php

declare(strict_types=1);

namespace NineTally\Core\Shape;

/** A table held whole, for it is asked once for each row. */
final readonly class ReferenceTable
{
    /** Looking up is for tables of codes and bands; two registers meet by matching. */
    public const MOST_ROWS = 500_000;

    /**
     * @param  list<string>  $columns
     * @param  list<list<string>>  $rows
     */
    public function __construct(public string $name, public array $columns, public array $rows) {}

    /**
     * @param  list<string>  $columns
     * @param  iterable<list<string>>  $rows
     *
     * @throws UnusableStep when it is too large
     */
    public static function of(string $name, array $columns, iterable $rows): self
    {
        $held = [];
        foreach ($rows as $cells) {
            $held[] = $cells;
            if (count($held) > self::MOST_ROWS) {
                throw UnusableStep::because(sprintf('The reference "%s" has more than %s rows, too many to look up from.', $name, number_format(self::MOST_ROWS)));
            }
        }

        return new self($name, $columns, $held);
    }

    /**
     * @param  list<string>  $names
     * @return list<int>
     *
     * @throws UnusableStep
     */
    public function places(array $names): array
    {
        return ColumnPlaces::of($this->columns)->all($names);
    }
}
