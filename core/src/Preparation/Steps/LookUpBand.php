<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Cause\CanonicalForm;
use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Intake\Batch;
use NineTally\Core\Preparation\ColumnIndex;
use NineTally\Core\Preparation\RowByRow;
use NineTally\Core\Preparation\RowCursor;
use NineTally\Core\Preparation\StepContext;
use NineTally\Core\Value\DeclaredForms;
use NineTally\Core\Value\Kind;

/** Takes columns from the record with the highest threshold at or below the value: bands of lengths, of amounts. */
final class LookUpBand extends RowByRow
{
    public const BELOW_ALL = 'below every band';

    public const ABOVE_ALL = 'above the last band';

    public const NO_BANDS = 'no band within';

    public const NO_NUMBER = 'no number';

    public const IN_GAP = 'between two bands';

    public const OVERLAP = 'bands overlap';

    /**
     * @param  string|null  $until  the reference's column with the end of the band, which no longer belongs to it; null: it ends where the
     *     next begins
     * @param  list<array{column: string, reference: string}>  $within  columns that must be equal too
     * @param  non-empty-list<array{reference: string, into: string}>  $take
     * @param  list<string>  $forgives  causes of form that the columns forgive that must be equal
     */
    public function __construct(
        private readonly string $reference,
        private readonly string $column,
        private readonly string $from,
        private readonly ?string $until,
        private readonly array $within,
        private readonly array $take,
        private readonly array $forgives = [],
    ) {}

    public function columns(array $columns): array
    {
        $places = ColumnIndex::of($columns);
        $places->all([$this->column, ...array_column($this->within, 'column')]);
        $places->mustBeFree(array_column($this->take, 'into'));

        return [...$columns, ...array_column($this->take, 'into')];
    }

    public function sentence(): string
    {
        return 'Look up '.
            Words::listed(array_column($this->take, 'into')).
            " in the bands of {$this->reference} by {$this->column}".
            ($this->within === [] ? '' : ' within '.Words::listed(array_column($this->within, 'column')));
    }

    protected function bind(array $columns, StepContext $context): \Closure
    {
        $places = ColumnIndex::of($columns);
        $value = $places->at($this->column);
        $within = $places->all(array_column($this->within, 'column'));
        $forms = $this->forms($context->forms ?? DeclaredForms::none(), array_column($this->within, 'column'));
        $bands = $this->bands($context);
        $nothing = array_fill(0, count($this->take), '');
        $figures = $context->figures;
        $reading = $context->reading($this->column, Kind::Number);
        $taken = array_column($this->take, 'into');

        return static function (RowCursor $row) use ($value, $within, $forms, $bands, $nothing, $figures, $reading, $taken): array {
            $cells = $row->cells;
            $number = $reading->isBlank($cells[$value]) ? null : $reading->number($cells[$value])?->toBigDecimal();
            if ($number === null) {
                $reading->isBlank($cells[$value]) || $figures->note(self::NO_NUMBER, $cells[$value]);

                return [...$cells, ...$nothing];
            }
            $ofGroup =
                $bands[
                    implode(
                        Batch::CELL_END,
                        array_map(static fn(int $place, CanonicalForm $form): string => $form->of($cells[$place]), $within, $forms),
                    )
                ] ?? [];
            $found = null;
            $isLast = true;
            foreach ($ofGroup as $band) {
                if ($band[0]->compareTo($number) > 0) {
                    $isLast = false;

                    break;
                }
                $found = $band;
            }
            if ($found === null || $found[1] !== null && $found[1]->compareTo($number) <= 0) {
                $figures->note(match (true) {
                    $ofGroup === [] => self::NO_BANDS,
                    $found === null => self::BELOW_ALL,
                    $isLast => self::ABOVE_ALL,
                    default => self::IN_GAP,
                }, $cells[$value]);

                return [...$cells, ...$nothing];
            }
            $figures->note(RecordFinder::FOUND);
            $figures->alter(...$taken);

            return [...$cells, ...$found[2]];
        };
    }

    /**
     * @param  list<string>  $columns
     * @return list<CanonicalForm>
     */
    private function forms(DeclaredForms $declared, array $columns): array
    {
        return array_map(
            fn(string $column): CanonicalForm => new CanonicalForm(
                $declared->reading($column, Kind::Text),
                $this->forgives,
                (new CauseCatalogue)->forms,
            ),
            $columns,
        );
    }

    /**
     * @return array<string, list<array{\Brick\Math\BigDecimal, \Brick\Math\BigDecimal|null, list<string>}>> by what must be equal too:
     *     begin, end, what is taken; in the order of their begin
     */
    private function bands(StepContext $context): array
    {
        $table = $context->references->named($this->reference);
        [$from] = $table->places([$this->from]);
        $until = $this->until === null ? null : $table->places([$this->until])[0];
        [$within, $take] = [
            $table->places(array_column($this->within, 'reference')),
            $table->places(array_column($this->take, 'reference')),
        ];
        $forms = $this->forms($table->forms, array_column($this->within, 'reference'));
        [$begins, $ends] = [$table->forms->reading($this->from, Kind::Number), $table->forms->reading($this->until ?? '', Kind::Number)];
        $bands = [];
        foreach ($table->rows as $cells) {
            $begin = $begins->number($cells[$from])?->toBigDecimal();
            if ($begin === null) {
                $context->figures->note('band without a number', $cells[$from]);

                continue;
            }
            $end = $until === null || $ends->isBlank($cells[$until]) ? null : $ends->number($cells[$until])?->toBigDecimal();
            $bands[
                implode(
                    Batch::CELL_END,
                    array_map(static fn(int $place, CanonicalForm $form): string => $form->of($cells[$place]), $within, $forms),
                )
            ][] = [$begin, $end, array_map(static fn(int $place): string => $cells[$place], $take)];
        }
        foreach ($bands as $group => $ofGroup) {
            usort($ofGroup, static fn(array $one, array $other): int => $one[0]->compareTo($other[0]));
            foreach ($ofGroup as $nth => [$begin]) {
                $before = $ofGroup[$nth - 1] ?? null;
                if ($before !== null && ($before[0]->isEqualTo($begin) || $before[1] !== null && $before[1]->compareTo($begin) > 0)) {
                    $context->figures->note(self::OVERLAP, (string) $begin);
                }
            }
            $bands[$group] = $ofGroup;
        }

        return $bands;
    }
}
