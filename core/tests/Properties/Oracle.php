<?php

declare(strict_types=1);

namespace NineTally\Tests\Properties;

use NineTally\Core\Plan\Plan;
use NineTally\Core\Repeats\PolicyId;
use NineTally\Core\Row\Side;

/**
 * A second opinion: the rules of the comparison once more, as plainly as they can be said, with nested loops and no class of
 * the engine but the plan. Slow, and meant to be.
 */
final class Oracle
{
    use OracleOfColumns;

    private const FORMS = ['spacing', 'invisible', 'line-ends', 'case', 'leading-zeros', 'number-form'];

    /** @var list<array{string, string, list<string>, list<array{int, string, string, string, string}>}> class, side, key, cells */
    private array $found = [];

    /**
     * @param  list<string>  $sourceNames
     * @param  list<list<string>>  $source
     * @param  list<string>  $targetNames
     * @param  list<list<string>>  $target
     */
    public function __construct(
        private readonly Plan $plan,
        private readonly array $sourceNames,
        private readonly array $source,
        private readonly array $targetNames,
        private readonly array $target,
    ) {}

    /** @return list<string> findings in source order, then those only the target has: class, side, key, and of changed rows each cell */
    public function findings(): array
    {
        foreach ([Side::Source, Side::Target] as $side) {
            foreach ($this->rows($side) as $row => $cells) {
                $this->judge($side, $row, $this->key($cells, $side));
            }
        }

        return array_map(
            fn(array $row): string => trim(
                implode(' ', [
                    $row[0],
                    $row[1],
                    implode('|', $row[2]),
                    ...array_map(
                        fn(array $cell): string => sprintf('[%d %s: %s > %s]', $cell[0], $this->decided($cell), $cell[3], $cell[4]),
                        $row[3],
                    ),
                ]),
            ),
            $this->found,
        );
    }

    /** @param list<string> $key */
    private function judge(Side $side, int $row, array $key): void
    {
        [$here, $there] = [$this->sharing($side, $key), $this->sharing($side->other(), $key)];
        if (implode('', $key) === '') {
            $this->found[] = ['unkeyed', $side->value, $key, []];
        } elseif ($this->plan->side($side)->repeats->id === PolicyId::PairInOrder) {
            $nth = (int) array_search($row, $here, true);
            isset($there[$nth])
                ? $this->meet($side, $key, $row, $there[$nth])
                : ($this->found[] = [$side === Side::Source ? 'missing' : 'extra', $side->value, $key, []]);
        } else {
            [$kept, $other] = [$this->kept($side, $here), $this->kept($side->other(), $there)];
            match (true) {
                $kept !== $row || $other === null && $there !== [] => $this->found[] = ['repeated', $side->value, $key, []],
                $there === [] => $this->found[] = [$side === Side::Source ? 'missing' : 'extra', $side->value, $key, []],
                default => $this->meet($side, $key, $row, (int) $other),
            };
        }
    }

    /** @param list<int> $rows */
    private function kept(Side $side, array $rows): ?int
    {
        $all = array_map(fn(int $row): array => $this->rows($side)[$row], $rows);

        return count($rows) < 2
            ? $rows[0] ?? null
            : match ($this->plan->side($side)->repeats->id) {
                PolicyId::KeepFirst => $rows[0],
                PolicyId::KeepLast => $rows[count($rows) - 1],
                PolicyId::CollapseCopies => count(array_unique($all, SORT_REGULAR)) === 1 &&
                count(array_unique(array_map(serialize(...), $all))) === 1
                    ? $rows[0]
                    : null,
                default => null,
            };
    }

    /** @param list<string> $key */
    private function meet(Side $side, array $key, int $row, int $other): void
    {
        if ($side === Side::Target) {
            return;
        }
        $cells = [];
        foreach ($this->plan->columnPairs as $position => $pair) {
            $left = $this->source[$row][(int) array_search($pair->source, $this->sourceNames, true)];
            $right = $this->target[$other][(int) array_search($pair->target, $this->targetNames, true)];
            $why = $left === $right ? '' : $this->why($left, $right);
            if ($why !== '' && array_diff(explode('+', explode(' ', $why)[1]), $pair->forgives) !== []) {
                $cells[] = [$position, $why, '', $left, $right];
            }
        }
        foreach ($cells as $at => [$position, $why, , $left, $right]) {
            $own = $this->plan->columnPairs[$position]->source;
            $cells[$at][2] =
                preg_match('/none|blanked|filled/', $why) === 1
                    ? $this->moved($own, $left, $right, $this->source[$row], $this->target[$other])
                    : '';
        }
        if ($cells !== []) {
            $this->found[] = ['changed', 'both', $key, $cells];
        }
    }

    /**
     * Another column of the row that has the value, and had not on the other side before.
     *
     * @param  list<string>  $source
     * @param  list<string>  $target
     */
    private function moved(string $own, string $left, string $right, array $source, array $target): string
    {
        $partnered = [...$this->plan->keyNames(Side::Source), ...$this->plan->pairedNames(Side::Source)];
        foreach ($this->targetNames as $place => $name) {
            if (
                $name !== $own &&
                mb_strlen($left) > 3 &&
                $target[$place] === $left &&
                (! in_array($name, $partnered, true) || $source[$place] !== $left)
            ) {
                return "{$own}>{$name}";
            }
        }
        foreach ($this->sourceNames as $place => $name) {
            if ($name !== $own && mb_strlen($right) > 3 && $source[$place] === $right) {
                return "{$name}>{$own}";
            }
        }

        return '';
    }

    private function why(string $left, string $right): string
    {
        $seen = static fn(string $text): bool => preg_replace('/[ \t\x{A0}\x{200B}]/u', '', $text) !== '';
        if ($right === '' && $seen($left) || $left === '' && $seen($right)) {
            return $right === '' ? 'blanked blanked' : 'filled filled';
        }
        for ($size = 1; $size <= count(self::FORMS); $size++) {
            foreach ($this->combinations(self::FORMS, $size) as $together) {
                // What is invisible goes before spaces are run together.
                usort($together, static fn(string $a, string $b): int => ($b === 'invisible') <=> ($a === 'invisible'));
                if ($this->without($together, $left) === $this->without($together, $right)) {
                    return 'changed '.implode('+', array_intersect(self::FORMS, $together));
                }
            }
        }

        return 'changed none';
    }

    /** @param list<string> $forms */
    private function without(array $forms, string $text): string
    {
        foreach ($forms as $form) {
            $text = match ($form) {
                'spacing' => trim((string) preg_replace('/(?: |\t|\x{A0})+/u', ' ', $text), ' '),
                'invisible' => str_replace("\u{200B}", '', $text),
                'line-ends' => str_replace("\r\n", "\n", $text),
                'case' => mb_strtolower($text),
                'leading-zeros' => (string) preg_replace('/^0+(\d+)$/', '$1', $text),
                default => preg_match('/^-?(0|[1-9]\d*)(\.\d+)?$/', $text) === 1 ? sprintf('%.6F', (float) $text + 0) : $text,
            };
        }

        return $text;
    }

    /**
     * @param  list<string>  $forms
     * @return list<list<string>>
     */
    private function combinations(array $forms, int $size): array
    {
        if ($size === 0) {
            return [[]];
        }
        $found = [];
        foreach ($forms as $position => $form) {
            foreach ($this->combinations(array_slice($forms, $position + 1), $size - 1) as $rest) {
                $found[] = [$form, ...$rest];
            }
        }

        return $found;
    }

    /**
     * @param  list<string>  $key
     * @return list<int> rows of a side with this key
     */
    private function sharing(Side $side, array $key): array
    {
        return array_keys(array_filter($this->rows($side), fn(array $cells): bool => $this->key($cells, $side) === $key));
    }

    /** @return list<list<string>> */
    private function rows(Side $side): array
    {
        return $side === Side::Source ? $this->source : $this->target;
    }

    /**
     * @param  list<string>  $cells
     * @return list<string>
     */
    private function key(array $cells, Side $side): array
    {
        $names = $side === Side::Source ? $this->sourceNames : $this->targetNames;

        return array_map(
            fn(string $name, int $position): string => $this->without(
                $this->plan->key[$position]->forgives,
                $cells[(int) array_search($name, $names, true)],
            ),
            $this->plan->keyNames($side),
            array_keys($this->plan->key),
        );
    }
}
