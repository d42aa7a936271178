<?php

declare(strict_types=1);

namespace App\Queries\Prove;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use NineTally\Core\Totals\TotalReport;

/**
 * The groups of a control total as paired bars on one axis, the source above the target: one picture for the page and the report. Each
 * group is as high as a row of the table beside it, so that they are read together; what differs is told by the figures there, and by an
 * edge here.
 *
 * @phpstan-import-type GroupDocument from TotalReport
 */
final readonly class TotalPicture
{
    public const ROW_HEIGHT = 34;

    public const WIDTH = 136;

    private const BAR_HEIGHT = 9;

    private const SOURCE = '#2b57c4';

    private const TARGET = '#96490a';

    /** @param list<array{source: float, target: float}> $bars from -1 to 1 */
    private function __construct(private array $bars, private float $zero) {}

    /** @param list<GroupDocument> $groups */
    public static function of(array $groups): self
    {
        $values = array_map(static fn(array $group): array => [
            BigDecimal::of(self::number($group['source'])),
            BigDecimal::of(self::number($group['target'])),
        ], $groups);
        $all = array_merge([BigDecimal::zero()], ...$values);
        $least = BigDecimal::min(...$all);
        $span = BigDecimal::max(...$all)->minus($least);
        // Of exact figures no more than their place on a line is drawn.
        $part = static fn(BigDecimal $value): float => $span->isZero()
            ? 0.0
            : $value->dividedBy($span, 6, RoundingMode::HALF_UP)->toFloat();

        return new self(
            array_map(static fn(array $pair): array => ['source' => $part($pair[0]), 'target' => $part($pair[1])], $values),
            $part($least->negated()),
        );
    }

    public function svg(): string
    {
        $height = max(1, count($this->bars)) * self::ROW_HEIGHT;
        $svg = sprintf(
            '<svg xmlns="http://www.w3.org/2000/svg" role="img" width="%1$d" height="%2$d" viewBox="0 0 %1$d %2$d">'.
                '<title>Each group: the source above the target, on one axis</title>',
            self::WIDTH,
            $height,
        );
        $zero = $this->zero * self::WIDTH;
        foreach ($this->bars as $place => $bar) {
            $top = $place * self::ROW_HEIGHT + 6;
            $svg .= $this->bar($bar['source'], $zero, $top, self::SOURCE).
                $this->bar($bar['target'], $zero, $top + self::BAR_HEIGHT + 2, self::TARGET);
        }

        return $svg.sprintf('<path d="M%1$.1f 0V%2$d" stroke="#8794a2" stroke-width="1"/></svg>', $zero, $height);
    }

    private function bar(float $part, float $zero, int $top, string $colour): string
    {
        return sprintf(
            '<rect x="%.1f" y="%d" width="%.1f" height="%d" fill="%s"/>',
            $zero + min(0.0, $part) * self::WIDTH,
            $top,
            abs($part) * self::WIDTH,
            self::BAR_HEIGHT,
            $colour,
        );
    }

    /** Dates and texts have no length. */
    private static function number(?string $value): string
    {
        return $value !== null && preg_match('/^-?\d+(?:\.\d+)?$/D', $value) === 1 ? $value : '0';
    }
}
