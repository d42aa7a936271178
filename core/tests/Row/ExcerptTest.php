<?php

declare(strict_types=1);

namespace NineTally\Tests\Row;

use NineTally\Core\NineTallyException;
use NineTally\Core\Preparation\Preparation;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\Excerpt;
use PHPUnit\Framework\TestCase;

final class ExcerptTest extends TestCase
{
    public function test_cuts_by_characters_and_says_so(): void
    {
        self::assertSame(str_repeat('ø', 200), Excerpt::of(str_repeat('ø', 200)));
        self::assertSame(str_repeat('ø', 200).'…', Excerpt::of(str_repeat('ø', 201)));
    }

    public function test_no_message_is_as_long_as_what_it_quotes(): void
    {
        $long = str_repeat('x', 1_000_000);
        $columns = Columns::named('old.csv', [$long, 'twice'.$long, 'twice'.$long]);
        $uses = [
            static fn() => $columns->positionOf('y'),
            static fn() => $columns->positionOf('z'.$long),
            static fn() => $columns->positionOf('twice'.$long),
            static fn() => (new Preparation([['id' => 's', 'kind' => 'leave-out-columns', 'columns' => ['b'.$long]]]))->columns(
                $columns->names,
                'source',
            ),
        ];
        foreach ($uses as $use) {
            try {
                $use();
                self::fail('It was taken.');
            } catch (NineTallyException $problem) {
                self::assertLessThan(2_000, strlen($problem->getMessage()));
            }
        }
    }
}
