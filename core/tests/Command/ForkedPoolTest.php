<?php

declare(strict_types=1);

namespace NineTally\Tests\Command;

use NineTally\Core\Command\ForkedPool;
use NineTally\Core\Command\WorkerFailure;
use NineTally\Core\Plan\KeyColumn;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\TallySettings;
use NineTally\Core\Tally\TallyWork;
use NineTally\Tests\Tally\Tallied;
use PHPUnit\Framework\TestCase;

/** Copies of this process that work for it: what becomes of it when they do not. */
final class ForkedPoolTest extends TestCase
{
    use Tallied;

    public function test_a_worker_that_dies_ends_the_work_with_a_message_and_leaves_no_process(): void
    {
        $reader = $this->reader("berth\n1\n", 'old.csv');
        $work = new TallyWork(
            new Plan([new KeyColumn('berth', 'berth')], []),
            new Sides($reader, $reader),
            $this->folder('work'),
            new TallySettings,
        );
        $done = [];
        try {
            // Nobody has written an order into this folder: both find nothing to work on.
            (new ForkedPool(2, $this->folder('nothing')))->perform($work, ['source-0', 'target-0'], static fn() => null, static function (
                string $task,
            ) use (&$done): void {
                $done[] = $task;
            });
            self::fail('Nobody noticed.');
        } catch (WorkerFailure $failure) {
            self::assertStringStartsWith('A worker process ended before its work was done', $failure->getMessage());
        }
        self::assertSame([], $done);
        self::assertSame(-1, pcntl_waitpid(-1, $status, WNOHANG), 'No copy is left.');
    }
}
