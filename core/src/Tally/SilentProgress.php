<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

final readonly class SilentProgress implements Progress
{
    public function report(ProgressReport $report): void {}
}
