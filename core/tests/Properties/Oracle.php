<?php

declare(strict_types=1);

namespace NineTally\Tests\Properties;

use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Side;

/**
 * A second opinion: the rules of the comparison once more, as plainly as they can be said, with nested loops and no class of
 * the engine but the plan. Slow, and meant to be.
 */
final readonly class Oracle
{
    /**
     * @param  list<string>  $sourceNames
     * @param  list<list<string>>  $source
     * @param  list<string>  $targetNames
     * @param  list<list<string>>  $target
     */
    public function __construct(private Plan $plan, private array $sourceNames, private array $source, private array $targetNames, private array $target) {}

    /** @return list<string> findings in source order, then those only the target has: class, side, key, and of changed rows each cell */
    public function findings(): array
    {
        $found = [];
        foreach ($this->source as $row) {
            $key = $this->key($row, Side::Source);
            $class = $this->classOf($key);
            if ($class === 'meets') {
                $cells = $this->cells($row, $this->partner($key));
                if ($cells !== []) {
                    $found[] = $this->line('changed', 'both', $key, $cells);
                }
            } else {
                $found[] = $this->line($class === 'alone' ? 'missing' : $class, 'source', $key, []);
            }
        }
        foreach ($this->target as $row) {
            $key = $this->key($row, Side::Target);
            $class = $this->classOf($key);
            if ($class !== 'meets') {
                $found[] = $this->line($class === 'alone' ? 'extra' : $class, 'target', $key, []);
            }
        }

        return $found;
    }

    /** @param list<string> $key */
    private function classOf(array $key): string
    {
        if (array_filter($key, static fn(string $cell): bool => $cell !== '') === []) {
            return 'unkeyed';
        }
        $here = $there = 0;
        foreach ($this->source as $row) {
            $here += $this->key($row, Side::Source) === $key ? 1 : 0;
        }
        foreach ($this->target as $row) {
            $there += $this->key($row, Side::Target) === $key ? 1 : 0;
        }

        return match (true) {
            $here > 1 || $there > 1 => 'repeated',
            $here === 1 && $there === 1 => 'meets',
            default => 'alone',
        };
    }

    /**
     * @param  list<string>  $key
     * @return list<string>
     */
    private function partner(array $key): array
    {
        foreach ($this->target as $row) {
            if ($this->key($row, Side::Target) === $key) {
                return $row;
            }
        }
        throw new \LogicException('There is one.');
    }

    /**
     * @param  list<string>  $source
     * @param  list<string>  $target
     * @return list<string>
     */
    private function cells(array $source, array $target): array
    {
        $cells = [];
        foreach ($this->plan->columnPairs as $position => $pair) {
            $left = $source[(int) array_search($pair->source, $this->sourceNames, true)];
            $right = $target[(int) array_search($pair->target, $this->targetNames, true)];
            if ($left !== $right) {
                [$class, $cause] = $this->why($left, $right);
                $cells[] = "[{$position} {$class} {$cause}: {$left} > {$right}]";
            }
        }

        return $cells;
    }

    /** @return array{string, string} */
    private function why(string $left, string $right): array
    {
        $seen = static fn(string $text): bool => preg_replace('/[\s\x{A0}\x{200B}]/u', '', $text) !== '';
        if ($right === '' && $seen($left)) {
            return ['blanked', 'blanked'];
        }
        if ($left === '' && $seen($right)) {
            return ['filled', 'filled'];
        }
        $forms = [
            'spacing' => static fn(string $text): string => trim((string) preg_replace('/(?: |\t|\x{A0})+/u', ' ', $text)),
            'case' => mb_strtolower(...),
            'number-form' => static fn(string $text): string => preg_match('/^-?(0|[1-9]\d*)(\.\d+)?$/', $text) === 1 ? sprintf('%.6F', (float) $text + 0) : $text,
        ];
        foreach ([['spacing'], ['case'], ['number-form'], ['spacing', 'case'], ['spacing', 'number-form'], ['case', 'number-form'], ['spacing', 'case', 'number-form']] as $together) {
            [$a, $b] = [$left, $right];
            foreach ($together as $form) {
                [$a, $b] = [$forms[$form]($a), $forms[$form]($b)];
            }
            if ($a === $b) {
                return ['changed', implode('+', $together)];
            }
        }

        return ['changed', 'none'];
    }

    /**
     * @param  list<string>  $row
     * @return list<string>
     */
    private function key(array $row, Side $side): array
    {
        $names = $side === Side::Source ? $this->sourceNames : $this->targetNames;

        return array_map(static fn(string $name): string => $row[(int) array_search($name, $names, true)], $this->plan->keyNames($side));
    }

    /**
     * @param  list<string>  $key
     * @param  list<string>  $cells
     */
    private function line(string $class, string $side, array $key, array $cells): string
    {
        return implode(' ', [$class, $side, implode('|', $key), ...$cells]);
    }
}
