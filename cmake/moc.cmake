# moc_own_headers(TARGET): the target's headers with signals go through moc.
function(moc_own_headers target)
  get_target_property(moc Qt6::moc LOCATION)
  set(own_moc "${PROJECT_BINARY_DIR}/moc_of_own_headers.sh")
  configure_file("${PROJECT_SOURCE_DIR}/cmake/moc_of_own_headers.sh.in" "${own_moc}" @ONLY USE_SOURCE_PERMISSIONS)
  set_target_properties(${target} PROPERTIES
    AUTOMOC ON
    AUTOMOC_EXECUTABLE "${own_moc}"
    AUTOGEN_ORIGIN_DEPENDS OFF) # no header with signals is generated: nothing that is linked has to be there first
endfunction()
