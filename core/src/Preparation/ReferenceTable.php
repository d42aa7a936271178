<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation;

use NineTally\Core\Row\RecordPlace;
use NineTally\Core\Value\DeclaredForms;

/** A reference when its own steps have run. It is held whole, for it is asked once for each row. */
final readonly class ReferenceTable
{
    /** Looking up is for tables of codes and bands; two registers meet by matching. */
    public const MOST_ROWS = 500_000;

    /** What is declared about its values. */
    public DeclaredForms $forms;

    /**
     * @param  list<string>  $columns
     * @param  list<list<string>>  $rows
     * @param  list<int>  $packedPlaces  of the rows; empty where nobody knows them
     */
    public function __construct(
        public string $name,
        public array $columns,
        public array $rows,
        private array $packedPlaces = [],
        ?DeclaredForms $forms = null,
    ) {
        $this->forms = $forms ?? DeclaredForms::none();
    }

    /**
     * @param  list<string>  $columns
     * @param  iterable<int, list<string>>  $rows  by packed place
     *
     * @throws UnusableStep when it is too large
     */
    public static function of(string $name, array $columns, iterable $rows, ?DeclaredForms $forms = null): self
    {
        $held = $packedPlaces = [];
        foreach ($rows as $packedPlace => $cells) {
            $held[] = $cells;
            $packedPlaces[] = $packedPlace;
            if (count($held) > self::MOST_ROWS) {
                throw UnusableStep::because(
                    sprintf('The reference "%s" has more than %s rows, too many to look up from.', $name, number_format(self::MOST_ROWS)),
                );
            }
        }

        return new self($name, $columns, $held, $packedPlaces, $forms);
    }

    /**
     * @param  list<string>  $names
     * @return list<int>
     *
     * @throws UnusableStep
     */
    public function places(array $names): array
    {
        try {
            return ColumnIndex::of($this->columns)->all($names);
        } catch (UnusableStep $problem) {
            throw UnusableStep::because(sprintf('In the reference "%s": %s', $this->name, $problem->getMessage()));
        }
    }

    /** Where a row was delivered, in words. */
    public function placeOf(int $row): string
    {
        $place = isset($this->packedPlaces[$row]) ? RecordPlace::ofPacked($this->packedPlaces[$row]) : null;

        return $place === null
            ? 'row '.number_format($row + 1)
            : 'line '.number_format($place->line).($place->part === 1 ? '' : " of part {$place->part}");
    }
}
