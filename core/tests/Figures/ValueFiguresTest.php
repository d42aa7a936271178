<?php

declare(strict_types=1);

namespace NineTally\Tests\Figures;

use NineTally\Core\Figures\ValueFigures;
use PHPUnit\Framework\TestCase;

final class ValueFiguresTest extends TestCase
{
    public function test_each_figure_is_counted_where_it_belongs_and_blank_on_both_sides_nowhere(): void
    {
        $figures = new ValueFigures(right: 100, differing: 20, blanked: 7, filled: 3, goneWithRow: 40, cameWithRow: 30, blankOnBoth: 999);

        self::assertSame(
            [
                'values' => 200,
                'right' => 100,
                'differing' => 20,
                'lost' => 47,
                'added' => 33,
                'blank_on_both' => 999,
                'agreement' => '50.00 %',
            ],
            $figures->toArray(),
        );
        self::assertSame('76.92 %', $figures->ofArrived()->text());
    }

    public function test_what_was_not_counted_is_nought(): void
    {
        self::assertSame(
            ['values' => 0, 'right' => 0, 'differing' => 0, 'lost' => 0, 'added' => 0, 'blank_on_both' => 0, 'agreement' => 'no figure'],
            (new ValueFigures)->toArray(),
        );
    }
}
