<?php

declare(strict_types=1);

namespace NineTally\Tests\Properties;

/** What the second opinion says of a cell when all cells of its column are known. */
trait OracleOfColumns
{
    /**
     * A cell without a cause of its own may have one that its column shows.
     *
     * @param  array{int, string, string, string, string}  $cell
     */
    private function decided(array $cell): string
    {
        $ofColumn = $this->cells(static fn(array $other): bool => $other[0] === $cell[0] && $other[1] === 'changed none');
        $cuts = array_count_values(
            array_map(
                static fn(array $other): int => str_starts_with($other[3], rtrim($other[4], ' ')) && trim($other[4]) !== ''
                    ? mb_strlen(rtrim($other[4], ' '))
                    : 0,
                $ofColumn,
            ),
        );
        unset($cuts[0]);
        $isCut = $cell[1] === 'changed none' && trim($cell[4]) !== '' && str_starts_with($cell[3], rtrim($cell[4], ' '));
        $pairs = array_count_values(array_map(static fn(array $other): string => $other[3]."\xFF".$other[4], $ofColumn));
        $sourceOf = static fn(string $pair): string => explode("\xFF", $pair)[0];
        $isAlone = static fn(string $pair): bool => count(
            array_filter(array_keys($pairs), static fn(string $other): bool => $sourceOf($other) === $sourceOf($pair)),
        ) === 1;
        $follows = array_filter($pairs, static fn(int $cells, string $pair): bool => $cells >= 3 && $isAlone($pair), ARRAY_FILTER_USE_BOTH);
        $follows = count($follows) > 1 && 2 * array_sum($follows) > count($ofColumn) ? $follows : [];
        $length = $cuts !== [] && max($cuts) >= 3 ? (int) array_search(max($cuts), $cuts, true) : null;
        $cutPairs = array_filter(
            array_keys($pairs),
            static fn(string $pair): bool => $length !== null &&
                str_starts_with($sourceOf($pair), rtrim(explode("\xFF", $pair)[1], ' ')) &&
                mb_strlen(rtrim(explode("\xFF", $pair)[1], ' ')) === $length,
        );
        $isColumnOfCodes =
            $follows !== [] &&
            $length !== null &&
            count($cutPairs) < count($pairs) &&
            array_filter(array_keys($pairs), $isAlone) === array_keys($pairs);
        $areCodes =
            $isColumnOfCodes ||
            ($follows !== [] &&
                $length !== null &&
                $length <= 3 &&
                array_diff($cutPairs, array_keys($follows)) === [] &&
                count(array_unique(array_map(static fn(string $pair): string => explode("\xFF", $pair)[1], $cutPairs))) ===
                    count($cutPairs));
        if ($isCut && ! $areCodes && $length === mb_strlen(rtrim($cell[4], ' '))) {
            return 'changed truncated';
        }
        if ($cell[1] === 'changed none' && $this->isOffset($cell, $ofColumn)) {
            return 'changed offset';
        }
        if (
            $cell[1] === 'changed none' &&
            $cell[3] !== '' &&
            $cell[4] !== '' &&
            (isset($follows[$cell[3]."\xFF".$cell[4]]) || $isColumnOfCodes)
        ) {
            return 'changed translated';
        }
        $moves = $this->cells(static fn(array $other): bool => $cell[2] !== '' && $other[2] === $cell[2] && $other[0] === $cell[0]);

        return count($moves) >= 3 ? 'changed moved' : $cell[1];
    }

    /**
     * Whether the cell lies by the constant apart that most cells of its column do.
     *
     * @param  array{int, string, string, string, string}  $cell
     * @param  list<array{int, string, string, string, string}>  $ofColumn
     */
    private function isOffset(array $cell, array $ofColumn): bool
    {
        $constants = [];
        foreach ($ofColumn as $other) {
            $apart = $this->apart($other);
            if ($apart !== null) {
                $constants[$apart][] = $this->number($other[3]);
            }
        }
        $constants = array_filter(
            $constants,
            static fn(array $sources): bool => count($sources) >= 3 && count(array_unique($sources)) >= 2,
        );
        uksort(
            $constants,
            static fn(string $a, string $b): int => [-count($constants[$a]), strlen($a), $a] <=> [-count($constants[$b]), strlen($b), $b],
        );

        return $constants !== [] && $this->apart($cell) === array_key_first($constants);
    }

    /** @param array{int, string, string, string, string} $cell */
    private function apart(array $cell): ?string
    {
        [$left, $right] = [$this->number($cell[3]), $this->number($cell[4])];
        if ($left === null || $right === null || $left === $right) {
            return null;
        }
        // Sign, digits without zeros, power of ten: among equally frequent constants the shortest is taken.
        $apart = sprintf('%.6F', (float) $right - (float) $left);
        $digits = trim(str_replace(['.', '-'], '', $apart), '0');

        return ($apart[0] === '-' ? '-' : '').$digits.'e'.((int) floor(log10(abs((float) $apart))) - strlen($digits) + 1);
    }

    private function number(string $text): ?string
    {
        $bare = $this->without(['invisible', 'spacing', 'line-ends', 'case', 'leading-zeros'], $text);

        return preg_match('/^-?(0|[1-9]\d*)(\.\d+)?$/D', $bare) === 1 ? sprintf('%.6F', (float) $bare + 0) : null;
    }

    /**
     * @param  \Closure(array{int, string, string, string, string}): bool  $wanted
     * @return list<array{int, string, string, string, string}>
     */
    private function cells(\Closure $wanted): array
    {
        return array_values(array_filter(array_merge(...array_column($this->found, 3), ...[[]]), $wanted));
    }
}
