<?php

declare(strict_types=1);

namespace App\Adapters\Sources\Files;

/** Nothing has come since the last delivery: no fault, and nothing to deliver. */
final class NothingNew extends \RuntimeException {}
