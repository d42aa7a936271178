<?php

declare(strict_types=1);

namespace NineTally\Tests\Cause;

use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\ColumnEvidence;
use NineTally\Core\Cause\Rules\EditScript;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class ColumnEvidenceTest extends TestCase
{
    public function test_counts_of_several_workers_add_up_to_what_one_would_have_counted(): void
    {
        [$one, $first, $second] = [new ColumnEvidence, new ColumnEvidence, new ColumnEvidence];
        foreach (range(0, 8) as $cell) {
            $evidence = ['truncated' => [$cell % 3 === 0 ? 'characters:5' : 'characters:9'], 'date-shift' => ['days:'.($cell % 2)]];
            $one->add($evidence);
            ($cell < 4 ? $first : $second)->add($evidence);
        }
        $first->merge($second);
        $catalogue = new CauseCatalogue;

        self::assertEquals($one->decide($catalogue), $first->decide($catalogue));
        self::assertSame(['characters' => 9], $first->decide($catalogue)->cause(CauseId::Truncated, ['characters:9'])?->facts);
        self::assertNull($first->decide($catalogue)->cause(CauseId::Truncated, ['characters:5']));
    }

    public function test_a_column_of_too_many_values_follows_no_rule_however_it_was_divided(): void
    {
        [$one, $first, $second] = [new ColumnEvidence, new ColumnEvidence, new ColumnEvidence];
        for ($value = 0; $value < 5_001; $value++) {
            foreach ([1, 2, 3] as $ignored) {
                $evidence = ['translated' => ["old {$value}\xFFnew {$value}"]];
                $one->add($evidence);
                ($value % 2 === 0 ? $first : $second)->add($evidence);
            }
        }
        $first->merge($second);
        $catalogue = new CauseCatalogue;

        self::assertFalse($one->decide($catalogue)->holds(CauseId::Translated));
        self::assertFalse($first->decide($catalogue)->holds(CauseId::Translated));
    }

    #[DataProvider('edits')]
    public function test_finds_the_fewest_edits(string $source, string $target, int $most, ?int $edits): void
    {
        $script = EditScript::between(mb_str_split($source), mb_str_split($target), $most);

        self::assertSame($edits, $script === null ? null : count($script));
        // As many the other way: an edit can be taken back.
        $back = EditScript::between(mb_str_split($target), mb_str_split($source), $most);
        self::assertSame($edits, $back === null ? null : count($back));
    }

    /** @return iterable<string, array{string, string, int, int|null}> */
    public static function edits(): iterable
    {
        yield 'none' => ['Heron', 'Heron', 2, 0];
        yield 'one replaced' => ['Heron', 'Haron', 2, 1];
        yield 'one at the beginning' => ['Heron', 'eron', 2, 1];
        yield 'one at the end' => ['Heron', 'Herons', 2, 1];
        yield 'two neighbours' => ['Heron', 'Hreon', 2, 1];
        yield 'two apart' => ['Kingfisher', 'Kngfishr', 2, 2];
        yield 'one before a run of equal letters' => ['Baaaaad', 'Baaaad', 2, 1];
        yield 'three' => ['Kingfisher', 'Kngfihr', 2, null];
        yield 'more than are allowed' => ['Heron', 'Haran', 1, null];
        yield 'letters of several bytes' => ['Thornøy', 'Thornöy', 2, 1];
    }
}
