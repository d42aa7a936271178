<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Cause\CanonicalForm;
use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Intake\Batch;
use NineTally\Core\Preparation\ColumnIndex;
use NineTally\Core\Preparation\ReferenceTable;
use NineTally\Core\Preparation\StepContext;
use NineTally\Core\Preparation\StepFigures;
use NineTally\Core\Preparation\UnusableStep;
use NineTally\Core\Row\Excerpt;
use NineTally\Core\Value\Kind;

/**
 * Finds the records of a reference that have a row's key. Both sides are read by what they declare; the key forgives causes of form where
 * the step says so, and what it forgave is counted. A blank key finds nothing.
 */
final readonly class RecordFinder
{
    public const FOUND = 'found a record';

    public const NO_RECORD = 'without a record';

    public const BLANK_KEY = 'blank key';

    public const BY_FORGIVING = 'found by a form that the key forgives';

    private const RECORDS_SHOWN = 5;

    /**
     * @param  list<int>  $places  of the key in a row
     * @param  list<CanonicalForm>  $forms  of the key cells
     * @param  array<string, list<int>>  $records  canonical key => places in the table
     * @param  list<int>  $keyPlaces  of the key in the table
     */
    private function __construct(
        private ReferenceTable $table,
        private array $places,
        private array $forms,
        private array $records,
        private array $keyPlaces,
        private StepFigures $figures,
    ) {}

    /**
     * The columns of rows that records are taken into.
     *
     * @param  list<string>  $columns
     * @param  list<array{column: string, reference: string}>  $on
     * @param  list<array{reference: string, into: string}>  $take
     * @return list<string>
     *
     * @throws UnusableStep when a column of the key is not there, or a name is taken
     */
    public static function columns(array $columns, array $on, array $take): array
    {
        $places = ColumnIndex::of($columns);
        $places->all(array_column($on, 'column'));
        $into = array_column($take, 'into');
        $places->mustBeFree($into);

        return [...$columns, ...$into];
    }

    /**
     * @param  list<array{column: string, reference: string}>  $on
     * @param  list<string>  $forgives  causes of form
     * @param  list<string>  $columns  of the rows
     *
     * @throws UnusableStep
     */
    public static function of(string $reference, array $on, array $forgives, array $columns, StepContext $context): self
    {
        $table = $context->references->named($reference);
        $combination = (new CauseCatalogue)->forms;
        $forms = array_map(
            static fn(array $pair): CanonicalForm => new CanonicalForm(
                $context->reading($pair['column'], Kind::Text),
                $forgives,
                $combination,
            ),
            $on,
        );
        $ofTable = array_map(
            static fn(array $pair): CanonicalForm => new CanonicalForm(
                $table->forms->reading($pair['reference'], Kind::Text),
                $forgives,
                $combination,
            ),
            $on,
        );
        $keyPlaces = $table->places(array_column($on, 'reference'));
        $records = [];
        foreach ($table->rows as $row => $cells) {
            $key = array_map(static fn(int $place, CanonicalForm $form): string => $form->of($cells[$place]), $keyPlaces, $ofTable);
            if (implode('', $key) !== '' || $on === []) {
                $records[implode(Batch::CELL_END, $key)][] = $row;
            }
        }

        return new self(
            $table,
            ColumnIndex::of($columns)->all(array_column($on, 'column')),
            $forms,
            $records,
            $keyPlaces,
            $context->figures,
        );
    }

    /**
     * @param  list<string>  $cells
     * @return list<int> places in the table, in its order; what was found, and what was not, is counted
     */
    public function find(array $cells): array
    {
        $given = $key = [];
        foreach ($this->places as $nth => $place) {
            $given[] = $cells[$place];
            $key[] = $this->forms[$nth]->of($cells[$place]);
        }
        if ($this->places !== [] && implode('', $key) === '') {
            $this->figures->note(self::BLANK_KEY);

            return [];
        }
        $found = $this->records[implode(Batch::CELL_END, $key)] ?? [];
        $this->figures->note($found === [] ? self::NO_RECORD : self::FOUND, $found === [] ? implode(' + ', $given) : null);
        if ($found !== [] && $this->keyOf($found[0]) !== $given) {
            $this->figures->note(self::BY_FORGIVING, implode(' + ', $given));
        }

        return $found;
    }

    /**
     * @param  list<string>  $cells
     * @return string what they are looked up by, as lists of a step tell it
     */
    public function given(array $cells): string
    {
        return implode(' + ', array_map(static fn(int $place): string => $cells[$place], $this->places));
    }

    /** @param list<string> $cells */
    public function isKeyBlank(array $cells): bool
    {
        foreach ($this->places as $nth => $place) {
            if ($this->forms[$nth]->of($cells[$place]) !== '') {
                return false;
            }
        }

        return $this->places !== [];
    }

    /**
     * @param  non-empty-list<int>  $found
     * @param  list<string>  $cells
     */
    public function several(array $found, array $cells): UnusableStep
    {
        $given = $this->given($cells);
        $shown = array_map(
            fn(int $row): string => sprintf('%s (%s)', $this->table->placeOf($row), Excerpt::of(implode(', ', $this->table->rows[$row]))),
            array_slice($found, 0, self::RECORDS_SHOWN),
        );

        return UnusableStep::because(
            sprintf(
                '"%s" finds %d records of the reference "%s": %s%s. Say at the step which of them is taken, or look up by more columns.',
                Excerpt::of($given),
                count($found),
                $this->table->name,
                implode('; ', $shown),
                count($found) > self::RECORDS_SHOWN ? ' and more' : '',
            ),
        );
    }

    /**
     * @param  list<int>  $take  places in the table
     * @return list<string>
     */
    public function cells(int $row, array $take): array
    {
        return array_map(fn(int $place): string => $this->table->rows[$row][$place], $take);
    }

    /** @return list<string> */
    private function keyOf(int $row): array
    {
        return $this->cells($row, $this->keyPlaces);
    }
}
