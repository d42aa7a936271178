<?php

declare(strict_types=1);

namespace Tests\Feature\Tally;

/** What TallyTest and WorkersTest have in common. */
trait QueuedRuns
{
    private function prepared(): void
    {
        $this->actingAs($this->analyst);
        if ($this->dataset->deliveries()->count() === 0) {
            $this->deliver('source', self::OLD);
            $this->deliver('target', self::NEW);
            $this->match();
        }
        // From here on jobs wait in the queue, as with a worker that has not come yet.
        config(['queue.default' => 'database']);
    }
}
