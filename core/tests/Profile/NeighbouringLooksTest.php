<?php

declare(strict_types=1);

namespace NineTally\Tests\Profile;

use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Matching\KeyForm;
use NineTally\Core\Profile\Repeats\LookedSide;
use NineTally\Core\Profile\Repeats\NeighbouringLooks;
use NineTally\Core\Value\Reading;
use PHPUnit\Framework\TestCase;

/** What one column more or less would give, and what chance gives. */
final class NeighbouringLooksTest extends TestCase
{
    public function test_counts_what_a_column_more_or_less_would_give(): void
    {
        $near = $this->near([0, 1], [2, 3], ['case']);
        foreach (['KB 1 A x', 'kb 1 A y', 'KB 2 B x', 'LM 1 A x', '  A x'] as $row) {
            $near->see(explode(' ', $row));
        }

        self::assertSame(['rows' => 4, 'now' => 1, 'chance' => 1, 'less' => [2, 2], 'more' => [1, 0]], $near->found());
    }

    /** 1,000 rows drawn at random from 100 and from 10,000 combinations leave so many beyond the first of each as is told. */
    public function test_chance_is_what_chance_gives(): void
    {
        mt_srand(5);
        foreach ([[10, 10], [100, 100]] as [$one, $other]) {
            $near = $this->near([0, 1], []);
            for ($row = 0; $row < 1_000; $row++) {
                $near->see([(string) mt_rand(1, $one), (string) mt_rand(1, $other)]);
            }
            ['now' => $now, 'chance' => $chance] = $near->found();
            self::assertEqualsWithDelta($now, $chance, 3 * sqrt($now));
        }
    }

    public function test_a_column_that_tells_rows_apart_was_not_filled_by_chance(): void
    {
        $near = $this->near([0], []);
        foreach (range(1, 100) as $row) {
            $near->see([(string) ($row % 90)]);
        }

        self::assertSame(['rows' => 100, 'now' => 10, 'chance' => 0, 'less' => [], 'more' => []], $near->found());
        self::assertSame(['rows' => 0, 'now' => 0, 'chance' => 0, 'less' => [], 'more' => [0]], $this->near([0], [1])->found());
    }

    /**
     * @param  list<int>  $places
     * @param  list<int>  $more
     * @param  list<string>  $forgives
     */
    private function near(array $places, array $more, array $forgives = []): NeighbouringLooks
    {
        $form = new KeyForm(
            array_map(static fn(): Reading => new Reading, $places),
            array_map(static fn(): array => $forgives, $places),
            (new CauseCatalogue)->forms,
        );

        return new NeighbouringLooks(new LookedSide(['basin', 'berth', 'holder', 'fee'], $places, $form), $more);
    }
}
