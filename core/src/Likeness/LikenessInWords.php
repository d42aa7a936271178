<?php

declare(strict_types=1);

namespace NineTally\Core\Likeness;

use NineTally\Core\Likeness\Measures\DamerauLevenshtein;

/** Why two rows are taken for one, or what speaks against it: the columns that are the same, then what differs in each other one. */
final readonly class LikenessInWords
{
    private FoldedText $folded;

    public function __construct(FoldedText $folded = new FoldedText)
    {
        $this->folded = $folded;
    }

    /**
     * @param  list<LikenessColumn>  $columns
     * @param  list<string>  $names  of the columns
     * @param  list<string>  $source  cells
     * @param  list<string>  $target
     */
    public function reason(array $columns, array $names, array $source, array $target): string
    {
        $same = $differs = [];
        foreach ($columns as $at => $column) {
            $said = $this->difference($column, $names[$at], $source[$at], $target[$at]);
            if ($said === '') {
                $same[] = $names[$at];
            } elseif ($said !== null) {
                $differs[] = $said;
            }
        }

        return implode('; ', array_filter([$same === [] ? '' : 'same '.self::listed($same), ...$differs]));
    }

    /** @return string|null '' for what is the same; null for what is blank on both sides */
    private function difference(LikenessColumn $column, string $name, string $source, string $target): ?string
    {
        $measure = $column->kind->measure($this->folded);
        [$one, $other] = [$measure->made($source, $column->source), $measure->made($target, $column->target)];

        return match (true) {
            $one === null && $other === null => null,
            $one === null, $other === null => sprintf('%s is blank in the %s', $name, $one === null ? 'source' : 'target'),
            $one === $other => '',
            is_float($one) && is_float($other) => "{$name} ".rtrim(rtrim(number_format(abs($one - $other), 4), '0'), '.').' apart',
            is_int($one) && is_int($other) => sprintf('%s %s apart', $name, self::counted(abs($one - $other), 'day')),
            is_array($one) && is_array($other) => self::ofWords($one, $other, $name),
            $column->kind === LikenessKind::Beginning && $measure->likeness($one, $other) === 1.0 => "one {$name} begins the other",
            is_string($one) && is_string($other) => self::ofLetters($one, $other, $name),
            default => "{$name} differs",
        };
    }

    /**
     * @param  array<mixed>  $one
     * @param  array<mixed>  $other
     */
    private static function ofWords(array $one, array $other, string $name): string
    {
        /** @var list<string> $one */
        /** @var list<string> $other */
        [$left, $right] = [array_values(array_diff($one, $other)), array_values(array_diff($other, $one))];
        if ($left === [] && $right === []) {
            return "the words of {$name} in another order";
        }
        if (count($left) === 1 && count($right) === 1) {
            $isInitial = min(mb_strlen($left[0]), mb_strlen($right[0])) === 1 && mb_substr($left[0], 0, 1) === mb_substr($right[0], 0, 1);

            return $isInitial ? "an initial in {$name}" : self::ofLetters($left[0], $right[0], $name);
        }

        return sprintf(
            '%d of %s the same in %s',
            count($one) - count($left),
            self::counted(max(count($one), count($other)), 'word'),
            $name,
        );
    }

    private static function ofLetters(string $one, string $other, string $name): string
    {
        return sprintf('%s differs by %s', $name, self::counted(DamerauLevenshtein::distance($one, $other), 'character'));
    }

    private static function counted(int $number, string $noun): string
    {
        return sprintf('%s %s%s', $number === 1 ? 'one' : number_format($number), $noun, $number === 1 ? '' : 's');
    }

    /** @param non-empty-list<string> $names */
    private static function listed(array $names): string
    {
        $last = array_pop($names);

        return $names === [] ? $last : implode(', ', $names)." and {$last}";
    }
}
