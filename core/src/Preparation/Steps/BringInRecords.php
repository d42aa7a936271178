<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Preparation\Step;
use NineTally\Core\Preparation\StepContext;

/** One row for each record that a reference has for the row's key. Rows without one stay, go, or stay and are listed. */
final readonly class BringInRecords implements Step
{
    public const LISTED = 'kept without a record';

    /**
     * @param  non-empty-list<array{column: string, reference: string}>  $on
     * @param  non-empty-list<array{reference: string, into: string}>  $take
     * @param  list<string>  $forgives  causes of form that the key forgives
     * @param  'keep'|'leave-out'|'list'  $without
     */
    public function __construct(
        private string $reference,
        private array $on,
        private array $take,
        private array $forgives = [],
        private string $without = 'keep',
    ) {}

    public function columns(array $columns): array
    {
        return RecordFinder::columns($columns, $this->on, $this->take);
    }

    public function sentence(): string
    {
        return "One row for each record of {$this->reference} by ".
            Words::listed(array_column($this->on, 'column')).
            ', with '.
            Words::listed(array_column($this->take, 'into')).
            ($this->forgives === [] ? '' : ', forgiving '.Words::listed($this->forgives)).
            match ($this->without) {
                'leave-out' => '; rows without one go',
                'list' => '; rows without one are listed',
                default => '; rows without one stay',
            };
    }

    public function run(iterable $rows, array $columns, StepContext $context): \Generator
    {
        $finder = RecordFinder::of($this->reference, $this->on, $this->forgives, $columns, $context);
        $take = $context->references->named($this->reference)->places(array_column($this->take, 'reference'));
        $nothing = array_fill(0, count($this->take), '');
        $into = array_column($this->take, 'into');
        $figures = $context->figures;
        foreach ($rows as $packedPlace => $cells) {
            $figures->in++;
            $found = $finder->find($cells);
            if ($found === []) {
                if ($this->without === 'leave-out') {
                    $context->leaveOut($packedPlace, $cells);

                    continue;
                }
                $this->without === 'list' && $figures->note(self::LISTED, $finder->given($cells));
                $figures->out++;
                yield $packedPlace => [...$cells, ...$nothing];

                continue;
            }
            // The row became these.
            $figures->made += count($found) - 1;
            foreach ($found as $record) {
                $figures->out++;
                $figures->alter(...$into);
                yield $packedPlace => [...$cells, ...$finder->cells($record, $take)];
            }
        }
    }
}
