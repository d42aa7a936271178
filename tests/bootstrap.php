<?php

declare(strict_types=1);

// Tests that run side by side have a home each, with a database, a storage and logs of its own: bin/test makes them.

require dirname(__DIR__).'/vendor/autoload.php';

$process = getenv('TEST_TOKEN');
if (is_string($process) && $process !== '') {
    $home = dirname(__DIR__)."/var/test/{$process}";
    putenv("NINE_TALLY_HOME={$home}");
    $_ENV['NINE_TALLY_HOME'] = $_SERVER['NINE_TALLY_HOME'] = $home;
}
