<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Preparation\ColumnIndex;
use NineTally\Core\Preparation\RowByRow;
use NineTally\Core\Preparation\RowCursor;
use NineTally\Core\Preparation\StepContext;
use NineTally\Core\Preparation\UnusableStep;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;

/**
 * Takes columns from the record of a reference that has the same key. Several records stop the run, unless the step says which is taken.
 */
final class LookUp extends RowByRow
{
    public const FOUND_BLANK = 'found but blank';

    public const SEVERAL = 'more than one record';

    private const FOUND = 'found';

    /**
     * @param  non-empty-list<array{column: string, reference: string}>  $on
     * @param  non-empty-list<array{reference: string, into: string}>  $take
     * @param  list<string>  $forgives  causes of form that the key forgives
     * @param  'stop'|'first'|'last'|'blank'  $several
     * @param  string|null  $outcome  column that says what was found: "found", "found but blank", "without a record", "blank key"
     */
    public function __construct(
        private readonly string $reference,
        private readonly array $on,
        private readonly array $take,
        private readonly array $forgives = [],
        private readonly string $several = 'stop',
        private readonly ?string $outcome = null,
    ) {}

    public function columns(array $columns): array
    {
        $columns = RecordFinder::columns($columns, $this->on, $this->take);
        if ($this->outcome === null) {
            return $columns;
        }
        ColumnIndex::of($columns)->mustBeFree([$this->outcome]);

        return [...$columns, $this->outcome];
    }

    public function sentence(): string
    {
        return 'Look up '.
            Words::listed(array_column($this->take, 'into')).
            " in {$this->reference} by ".
            Words::listed(array_column($this->on, 'column')).
            ($this->forgives === [] ? '' : ', forgiving '.Words::listed($this->forgives)).
            match ($this->several) {
                'first' => ', the first of several records',
                'last' => ', the last of several records',
                'blank' => ', blank for several records',
                default => '',
            };
    }

    /** @throws UnusableStep */
    protected function bind(array $columns, StepContext $context): \Closure
    {
        $finder = RecordFinder::of($this->reference, $this->on, $this->forgives, $columns, $context);
        $table = $context->references->named($this->reference);
        $take = $table->places(array_column($this->take, 'reference'));
        $readings = array_map(static fn(array $taken): Reading => $table->forms->reading($taken['reference'], Kind::Text), $this->take);
        $nothing = array_fill(0, count($this->take), '');
        [$figures, $several, $into] = [$context->figures, $this->several, array_column($this->take, 'into')];
        $says = $this->outcome !== null;

        return static function (
            RowCursor $row,
        ) use ($finder, $take, $readings, $nothing, $figures, $several, $into, $says): array {
            $cells = $row->cells;
            $found = $finder->find($cells);
            if (count($found) > 1) {
                if ($several === 'stop') {
                    throw $finder->several($found, $cells);
                }
                $figures->note(self::SEVERAL, $finder->given($cells));
            }
            if ($found === [] || count($found) > 1 && $several === 'blank') {
                $outcome = match (true) {
                    $found !== [] => self::SEVERAL,
                    $finder->isKeyBlank($cells) => RecordFinder::BLANK_KEY,
                    default => RecordFinder::NO_RECORD,
                };

                return [...$cells, ...$nothing, ...($says ? [$outcome] : [])];
            }
            $taken = $finder->cells($found[$several === 'last' ? count($found) - 1 : 0], $take);
            $outcome = self::FOUND;
            foreach ($taken as $nth => $value) {
                if ($readings[$nth]->isBlank($value)) {
                    $figures->note(self::FOUND_BLANK, $finder->given($cells));
                    $outcome = self::FOUND_BLANK;

                    break;
                }
            }
            $figures->alter(...$into);

            return [...$cells, ...$taken, ...($says ? [$outcome] : [])];
        };
    }
}
