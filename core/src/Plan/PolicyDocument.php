<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

use NineTally\Core\Repeats\DecidingColumn;
use NineTally\Core\Repeats\DifferingPolicy;
use NineTally\Core\Repeats\PolicyId;
use NineTally\Core\Repeats\RepeatsPolicy;
use NineTally\Core\Value\Kind;

/**
 * What becomes of rows of a side that share a key, as a plan writes it.
 *
 * @phpstan-type OwnPolicy array{differ: list<string>, policy: string, column?: string, kind?: string, then?: array{column: string,
 *     kind?: string, keeps?: string}, except?: list<string>}
 * @phpstan-type Policy array{policy: string, column?: string, kind?: string, then?: array{column: string, kind?: string, keeps?: string},
 *     except?: list<string>, own?: list<OwnPolicy>}
 */
final readonly class PolicyDocument
{
    /**
     * @param  string  $place  in the plan
     * @param  Policy  $document  that follows the schema
     */
    public function __construct(private string $place, private array $document) {}

    /** @throws UnusablePlan when it lacks what its policy needs, or has what its policy has no use for */
    public function policy(): RepeatsPolicy
    {
        return $this->one()->withOwn($this->own());
    }

    /**
     * @return list<DifferingPolicy>
     *
     * @throws UnusablePlan
     */
    private function own(): array
    {
        $own = $seen = [];
        foreach ($this->document['own'] ?? [] as $position => $document) {
            $differ = $columns = $document['differ'];
            unset($document['differ']);
            sort($columns);
            $problem = match (true) {
                $this->document['policy'] === PolicyId::PairInOrder->value, $document['policy'] === PolicyId::PairInOrder->value =>
                    'Where rows are paired in order, no key has a policy of its own. Take it out, or choose another policy.',
                in_array($columns, $seen, true) => 'There is a policy for rows that differ in these columns already. Take one of them out.',
                default => null,
            };
            if ($problem !== null) {
                throw UnusablePlan::because([new Problem("{$this->place}/own/{$position}", $problem)]);
            }
            $seen[] = $columns;
            $own[] = new DifferingPolicy($differ, (new self("{$this->place}/own/{$position}", $document))->one());
        }

        return $own;
    }

    /** @throws UnusablePlan */
    private function one(): RepeatsPolicy
    {
        $policy = PolicyId::from($this->document['policy']);
        $kind = Kind::from($this->document['kind'] ?? Kind::Text->value);
        if ($policy->needsColumn() !== isset($this->document['column'])) {
            throw UnusablePlan::because([new Problem(
                "{$this->place}/column",
                $policy->needsColumn()
                    ? sprintf('The policy "%s" needs the column whose value decides.', $policy->value)
                    : sprintf('The policy "%s" looks at no column. Take the column out.', $policy->value),
            )]);
        }
        foreach (['then' => $policy->needsColumn(), 'except' => $policy === PolicyId::CollapseCopies] as $part => $mayBe) {
            if (isset($this->document[$part]) && ! $mayBe) {
                $problem = sprintf('The policy "%s" has no use for "%s". Take it out.', $policy->value, $part);
                throw UnusablePlan::because([new Problem("{$this->place}/{$part}", $problem)]);
            }
        }

        return match (true) {
            isset($this->document['column']) => RepeatsPolicy::byColumn($policy, $this->document['column'], $kind, $this->then()),
            isset($this->document['except']) => RepeatsPolicy::copies($this->document['except']),
            default => RepeatsPolicy::of($policy),
        };
    }

    private function then(): ?DecidingColumn
    {
        $then = $this->document['then'] ?? null;

        return $then === null ? null : new DecidingColumn(
            $then['column'],
            Kind::from($then['kind'] ?? Kind::Text->value),
            ($then['keeps'] ?? 'highest') === 'highest',
        );
    }
}
