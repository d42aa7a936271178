<?php

declare(strict_types=1);

namespace App\Queries\TakeAway;

use App\Models\Tally;
use App\Queries\Review\ActOfTally;
use App\Queries\Review\ActsOfTally;
use App\Queries\Review\Mask;
use App\Queries\Review\Standing;
use App\Queries\Review\TallyColumns;
use NineTally\Core\Plan\KeyColumn;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Row\Side;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;

/** What both tables of a tally have: the key in columns, what stands by ruling, and which tally, plan and deliveries it is of. */
final class TakenTally
{
    /** Acts that are held: findings of one act stand one after the other, so that few suffice. */
    private const MOST_ACTS = 2_000;

    public readonly TallyColumns $layout;

    /** @var array<int, ActOfTally> */
    private array $acts = [];

    /** @var array<string, Reading> by side and column */
    private array $readings = [];

    public function __construct(public readonly Tally $tally, public readonly Mask $mask, private readonly ActsOfTally $actsOfTally)
    {
        $this->layout = TallyColumns::ofTally($tally);
    }

    /** @return list<TableField> */
    public function keyFields(): array
    {
        return array_map(
            static fn(KeyColumn $column): TableField => new TableField(
                "key.{$column->source}",
                'string',
                'Cell of the key as the source has it; of a row that only the target has, as the target has it.',
            ),
            $this->layout->plan->key,
        );
    }

    /** @return list<string> */
    public function key(?KeyTuple $key): array
    {
        return $key === null ? array_fill(0, count($this->layout->plan->key), '') : $key->cells;
    }

    /** @return list<TableField> */
    public function rulingFields(): array
    {
        return [
            new TableField('ruling.decision', 'string', 'expected, defect, ask or open: what stands.'),
            new TableField('ruling.reason', 'string', 'Why, as the person said it.'),
            new TableField('ruling.ticket', 'string', 'The ticket that was named.'),
            new TableField('ruling.by', 'string', 'Who ruled.'),
            new TableField('ruling.asked', 'string', 'Who was asked.'),
            new TableField('ruling.at', 'datetime', 'When, in UTC.'),
            new TableField('ruling.tally', 'integer', 'The number of the tally on which the act was entered.'),
        ];
    }

    /** @return list<string|int> */
    public function ruling(Standing $standing): array
    {
        $of = $standing->rulingId === null ? null : $this->acts[$standing->rulingId] ?? null;
        if ($of === null) {
            return [$standing->decision->value, '', '', '', '', '', ''];
        }

        return [
            $standing->decision->value,
            $of->act->reason,
            (string) $of->act->ticket,
            $of->act->user->name,
            (string) $of->act->asked?->name,
            $of->act->created_at->toIso8601ZuluString(),
            $of->tally,
        ];
    }

    /** @param list<Standing> $standings whose acts are needed next */
    public function willNeed(array $standings): void
    {
        $ids = array_values(array_unique(array_filter(array_map(static fn(Standing $one): ?int => $one->rulingId, $standings))));
        if (count($this->acts) > self::MOST_ACTS) {
            $this->acts = [];
        }
        foreach (array_chunk(array_values(array_diff($ids, array_keys($this->acts))), 500) as $some) {
            foreach ($this->actsOfTally->these($this->tally, $this->mask, $some) as $of) {
                $this->acts[$of->act->id] = $of;
            }
        }
    }

    /** @return list<TableField> */
    public function originFields(): array
    {
        return [
            new TableField('tally', 'integer', 'The number of the tally.'),
            new TableField('plan', 'integer', 'The number of the plan version.'),
            new TableField('delivery.source', 'integer', 'The number of the delivery of the source.'),
            new TableField('delivery.target', 'integer', 'The number of the delivery of the target.'),
        ];
    }

    /** @return list<int> */
    public function origin(): array
    {
        ['planVersion' => $plan, 'sourceDelivery' => $source, 'targetDelivery' => $target] = $this->tally->summary['madeOf'];

        return [$this->tally->number, $plan, $source, $target];
    }

    /** What a cell is beside its text: "no row", "blank", "token" (a word that means blank), or '' where it has a value. */
    public function state(Side $side, string $column, ?string $value): string
    {
        return match (true) {
            $value === null => 'no row',
            $value === '' => 'blank',
            $this->reading($side, $column)->isBlank($value) => 'token',
            default => '',
        };
    }

    public function reading(Side $side, string $column): Reading
    {
        return $this->readings["{$side->value} {$column}"] ??= $this->layout->plan
            ->side($side)
            ->reading($column, $this->kind($side, $column));
    }

    private function kind(Side $side, string $column): Kind
    {
        foreach ($this->layout->plan->columnPairs as $pair) {
            if (($side === Side::Source ? $pair->source : $pair->target) === $column) {
                return $pair->kind;
            }
        }

        return Kind::Text;
    }
}
