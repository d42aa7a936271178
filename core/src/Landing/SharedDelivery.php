<?php

declare(strict_types=1);

namespace NineTally\Core\Landing;

use NineTally\Core\Intake\Reader;
use NineTally\Core\Preparation\PartStack;

/** A delivery as one dataset uses it: its rows as they came, and what its steps leave of them. */
final readonly class SharedDelivery
{
    /**
     * @param  string  $name  of the dataset
     * @param  Reader  $prepared  when its steps have run
     */
    public function __construct(public string $name, public PartStack $stack, public Reader $prepared) {}
}
