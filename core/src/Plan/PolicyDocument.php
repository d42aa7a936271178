<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

use NineTally\Core\Repeats\DecidingColumn;
use NineTally\Core\Repeats\PolicyId;
use NineTally\Core\Repeats\RepeatsPolicy;
use NineTally\Core\Value\Kind;

/**
 * What becomes of rows of a side that share a key, as a plan writes it.
 *
 * @phpstan-type Policy array{policy: string, column?: string, kind?: string, then?: array{column: string, kind?: string, keeps?: string},
 *     except?: list<string>}
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
