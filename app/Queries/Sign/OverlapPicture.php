<?php

declare(strict_types=1);

namespace App\Queries\Sign;

/**
 * How far the two sides overlap, the source above the target: missing on the left, extra on the right, what both have between them. What
 * does not agree stands on a square-root scale, so that three rows in a million are seen, and the cut says so. Drawn as on the board.
 */
final readonly class OverlapPicture
{
    private const WIDTH = 640;

    private const HEIGHT = 30;

    private const GAP = 2;

    private const SMALLEST = 6;

    private const GROWTH = 2.6;

    private const LARGEST_SHARE = 0.2;

    /** @param array{missing: float, agreed: float, changed: float, repeated: float, extra: float} $widths */
    private function __construct(private array $widths, private string $words) {}

    /** @param array{source: array<string, int>, target: array<string, int>} $rows by side and class */
    public static function of(array $rows): self
    {
        ['source' => $source, 'target' => $target] = $rows;
        $repeated = max($source['repeated'], $target['repeated']);
        $widths = array_map(
            static fn(int $of): float => $of === 0
                ? 0.0
                : min(self::WIDTH * self::LARGEST_SHARE, max(self::SMALLEST, sqrt($of) * self::GROWTH)),
            ['missing' => $source['missing'], 'changed' => $source['changed'], 'repeated' => $repeated, 'extra' => $target['extra']],
        );
        $apart = array_sum($widths);
        // Where nothing agrees the others have the whole bar.
        $stretch = $source['agreed'] > 0 || $apart <= 0.0 ? 1.0 : self::WIDTH / $apart;
        $widths = array_map(static fn(float $width): float => $width * $stretch, $widths);

        return new self(
            [...$widths, 'agreed' => $source['agreed'] > 0 ? self::WIDTH - $apart : 0.0],
            sprintf(
                '%s rows agree, %s changed, %s missing, %s extra, %s repeated',
                ...array_map(
                    number_format(...),
                    [
                        $source['agreed'],
                        $source['changed'],
                        $source['missing'],
                        $target['extra'],
                        $source['repeated'] + $target['repeated'],
                    ],
                ),
            ),
        );
    }

    public function svg(): string
    {
        ['missing' => $missing, 'agreed' => $agreed, 'changed' => $changed, 'repeated' => $repeated, 'extra' => $extra] = $this->widths;
        $half = (self::HEIGHT - self::GAP) / 2;
        $below = $half + self::GAP;
        $x = $missing + $agreed;
        $cut = $missing + $agreed / 2;

        return sprintf(
            '<svg xmlns="http://www.w3.org/2000/svg" role="img" width="%1$d" height="%2$d" '.
            'viewBox="0 0 %1$d %2$d" style="max-width:100%%">'.
                '<title>%3$s</title>',
            self::WIDTH,
            self::HEIGHT,
            htmlspecialchars($this->words),
        ).
            self::bar(0, 0, $missing, $half, '#2b57c4').
            self::bar($missing, 0, $agreed, $half, '#b9c2cb').
            self::bar($missing, $below, $agreed, $half, '#b9c2cb').
            ($agreed > 20 ? sprintf(
                '<path d="M%.1f %d L%.1f 0 M%.1f %d L%.1f 0" stroke="#fff" stroke-width="2.5"/>',
                $cut - 3,
                self::HEIGHT,
                $cut + 1,
                $cut + 2,
                self::HEIGHT,
                $cut + 6,
            ) : '').
            self::bar($x, 0, $changed, $half, '#9db4ec').
            self::bar($x, $below, $changed, $half, '#e3b78f').
            self::bar($x + $changed, 0, $repeated, self::HEIGHT, '#556270').
            self::bar($x + $changed + $repeated, $below, $extra, $half, '#96490a').
            '</svg>';
    }

    private static function bar(float $x, float $y, float $width, float $height, string $colour): string
    {
        return $width <= 0.0
            ? ''
            : sprintf('<rect x="%.1f" y="%.1f" width="%.1f" height="%.1f" fill="%s"/>', $x, $y, $width, $height, $colour);
    }
}
