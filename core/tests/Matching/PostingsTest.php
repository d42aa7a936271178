<?php

declare(strict_types=1);

namespace NineTally\Tests\Matching;

use NineTally\Core\Matching\Postings\PostingBuffer;
use NineTally\Core\Matching\Postings\Postings;
use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;

/** In which rows forgiven cells stand: whatever the number of tasks, in the order of the source, entered anywhere. */
final class PostingsTest extends TestCase
{
    use TemporaryFiles;

    public function test_lists_of_several_tasks_are_one_list_in_the_order_of_the_source(): void
    {
        $random = new Randomizer(new Mt19937(7));
        $rows = ['case' => $random->pickArrayKeys(array_fill(0, 400_000, true), 30_000), 'spacing' => [3, 70_000, 5_000_000_000]];
        $tasks = [];
        foreach ([0, 1, 2] as $task) {
            $buffer = new PostingBuffer;
            foreach ($rows as $pattern => $ofPattern) {
                foreach ($random->shuffleArray($ofPattern) as $row) {
                    $row % 3 === $task && $buffer->of($pattern)->add((int) $row);
                }
            }
            $tasks[] = ['path' => $this->folder()."/task-{$task}", 'index' => $buffer->write($this->folder()."/task-{$task}")];
        }
        $postings = Postings::merged($tasks, $this->folder().'/whole');

        self::assertSame([30_000, 3, 0], array_map($postings->count(...), ['case', 'spacing', 'none']));
        self::assertSame($rows['case'], $postings->rows('case', 1, 50_000));
        self::assertSame(array_slice($rows['case'], 12_344, 7), $postings->rows('case', 12_345, 7));
        self::assertSame([70_000, 5_000_000_000], $postings->rows('spacing', 2, 9));
        self::assertSame([[], []], [$postings->rows('spacing', 4, 9), $postings->rows('none', 1, 9)]);
        // Two bytes a cell, and six for each stretch of 65,536 rows.
        self::assertSame(2 * 30_003 + 6 * (7 + 3), filesize($this->folder().'/whole'));
    }
}
