<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\Delimited;

/** A file was divided by counting quotes, and then quotes were met that open no cell: it must be read from its beginning. */
final class StrayQuotes extends \UnexpectedValueException {}
